// Makes docs/screenshots anew from the demo project, with a server of its own.
import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { CHROMIUM } from './chromium.mjs';
import { run } from './lib.mjs';
import { serve } from './serve.mjs';

const folder = 'docs/screenshots';
mkdirSync(folder, { recursive: true });
run(process.execPath, ['scripts/vistum.mjs', 'demo']);
const { base, stop } = await serve('4197');
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const shot = (name) => page.screenshot({ path: `${folder}/${name}.png` });
const goTo = async (time) => {
  await page.getByLabel('Timecode').fill(time);
  await page.getByLabel('Timecode').press('Enter');
  await wait(1500);
};
/** A copy of the demo under a name. */
async function copyNamed(name) {
  const { id } = await (
    await page.request.post(`${base}/api/projects/demo-glaze-firing/duplicate`)
  ).json();
  await page.request.patch(`${base}/api/projects/${id}`, { data: { name } });
  return id;
}

/** Callouts on the Picture, one of them selected, with the menu that adds more. */
async function callouts() {
  const id = await copyNamed('Glaze firing, callouts');
  await page.goto(`${base}/projects/${id}/edit`);
  await page.locator('[data-clip]').first().waitFor();
  await wait(2000);
  await goTo('40');
  const menu = page.getByRole('button', { name: 'Shape', exact: true });
  const add = async (name) => {
    await menu.click();
    await page.getByRole('menuitem', { name, exact: true }).click();
    await page.getByRole('heading', { name, exact: true }).waitFor();
  };
  const picture = await page.getByTestId('picture').boundingBox();
  const dragTo = async (handle, x, y) => {
    const { x: left, y: top, width, height } = await page.getByTestId(handle).boundingBox();
    await page.mouse.move(left + width / 2, top + height / 2);
    await page.mouse.down();
    await page.mouse.move(picture.x + picture.width * x, picture.y + picture.height * y, {
      steps: 5,
    });
    await page.mouse.up();
  };
  await add('Lens');
  await dragTo('callout-area', 0.21, 0.43);
  await dragTo('callout-lens', 0.4, 0.8);
  await add('Keycaps');
  await page.getByLabel('Keys', { exact: true }).fill('Ctrl+S');
  await page.getByLabel('Keys', { exact: true }).blur();
  await dragTo('callout-at', 0.62, 0.5);
  await add('Arrow');
  await page.getByLabel('Way', { exact: true }).selectOption('Curved');
  await dragTo('callout-from', 0.62, 0.48);
  await goTo('41');
  await menu.click();
  await wait(1500);
  await shot('callouts');
  await page.keyboard.press('Escape');
  await page.request.patch(`${base}/api/projects/${id}`, { data: { deleted: true } });
}

/** A project that was just given its first recordings: placed, lined up, still being prepared. */
async function firstDrop() {
  const { id } = await (
    await page.request.post(`${base}/api/projects`, {
      data: { name: 'Kiln safety', width: 1920, height: 1080, frameRate: { num: 30, den: 1 } },
    })
  ).json();
  await page.goto(`${base}/projects/${id}/edit`);
  await page
    .getByLabel('Recordings to begin with')
    .setInputFiles(['demo/media/kilnbook-screen.mp4', 'demo/media/presenter-take-1.mp4']);
  await page
    .getByText(/recordings placed; 2 lined up/)
    .first()
    .waitFor({ timeout: 60_000 });
  await page
    .getByText(/Preparing the preview, [1-9]\d %/)
    .first()
    .waitFor({ timeout: 60_000 });
  await shot('first-drop');
  await page.request.patch(`${base}/api/projects/${id}`, { data: { deleted: true } });
}

/** A copy in the middle of its rough cut: joins, a dissolve, a held frame, a range. */
async function cutting() {
  const { id } = await (
    await page.request.post(`${base}/api/projects/demo-glaze-firing/duplicate`)
  ).json();
  await page.request.patch(`${base}/api/projects/${id}`, { data: { name: 'Glaze firing, cut' } });
  await page.goto(`${base}/projects/${id}/edit`);
  await page.locator('[data-clip]').first().waitFor();
  await wait(2000);
  const range = async (from, to) => {
    await goTo(from);
    await page.keyboard.press('i');
    await goTo(to);
    await page.keyboard.press('o');
  };
  const command = async (name) => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Command' }).fill(name);
    await page.getByRole('combobox', { name: 'Command' }).press('Enter');
    await wait(300);
  };
  for (const [from, to] of [
    ['62', '68'],
    ['36', '43'],
    ['12', '17'],
  ]) {
    await range(from, to);
    await page.keyboard.press('Shift+Delete');
  }
  await page.keyboard.press('Escape');
  await goTo('21');
  await command('freeze frame');
  await page.getByRole('button', { name: 'Freeze', exact: true }).click();
  await goTo('12');
  await page
    .locator('[data-clip][data-lane-kind=screen]')
    .nth(1)
    .click({ position: { x: 50, y: 25 } });
  await command('dissolve');
  await page
    .locator('[data-clip][data-lane-kind=voice]')
    .nth(2)
    .click({ position: { x: 40, y: 20 } });
  await goTo('12.1');
  await wait(1500);
  await shot('cut');
  await page.getByRole('tab', { name: 'Footage' }).click();
  await page.getByRole('button', { name: 'Look at kilnbook-screen.mp4' }).click();
  await page.getByRole('slider', { name: 'Position' }).fill('24');
  await page.getByRole('button', { name: 'In point (I)' }).click();
  await wait(1500);
  await shot('preview');
  await page.request.patch(`${base}/api/projects/${id}`, { data: { deleted: true } });
}

/** The pointer's looks, and its path being mended, in a copy. */
async function pointing() {
  const { id } = await (
    await page.request.post(`${base}/api/projects/demo-glaze-firing/duplicate`)
  ).json();
  await page.goto(`${base}/projects/${id}/edit`);
  await page.locator('[data-clip]').first().waitFor();
  await wait(2500);
  await goTo('26.2');
  await page
    .locator('[data-span=pointer]')
    .first()
    .click({ position: { x: 200, y: 8 } });
  const look = (name) => page.getByRole('checkbox', { name, exact: true });
  for (const name of ['Size', 'Ring at presses', 'Dim around', 'Keycaps']) await look(name).check();
  await page.getByLabel('Typing as well').check();
  await page.getByRole('heading', { name: 'Pointer' }).scrollIntoViewIfNeeded();
  await wait(2000);
  await shot('pointer-looks');
  await page.keyboard.press('Escape');
  await goTo('20.1');
  await page.getByRole('tab', { name: 'Footage' }).click();
  await page
    .getByRole('button', { name: /^kilnbook-screen/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Mend the pointer’s path' }).click();
  await wait(1500);
  await shot('pointer-path');
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Footage' }).click();
  await page
    .getByRole('button', { name: /^kilnbook-screen/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Find private data' }).click();
  await goTo('1:02');
  // The addresses and numbers are under covers already.
  await page.getByRole('textbox', { name: /own words/ }).fill('Oona Feld, Ilse Varga, Hanno Quill');
  await page.getByRole('button', { name: 'Look for private data' }).click();
  await page.getByRole('button', { name: /^Cover these/ }).waitFor({ timeout: 300_000 });
  await wait(500);
  await shot('private');
  await page.request.patch(`${base}/api/projects/${id}`, { data: { deleted: true } });
}

try {
  await page.goto(base);
  await page
    .getByRole('link', { name: /^Glaze firing/ })
    .first()
    .waitFor();
  await wait(800);
  await shot('projects');
  await callouts();
  await page.goto(`${base}/projects/demo-glaze-firing/outline`);
  await page.getByLabel('Narration of step 1', { exact: true }).waitFor();
  await wait(800);
  await shot('outline');
  // Recorded in a copy, so that the demo stays as it is.
  const { id } = await (
    await page.request.post(`${base}/api/projects/demo-glaze-firing/duplicate`)
  ).json();
  await page.evaluate(() =>
    localStorage.setItem('record-settings', JSON.stringify({ countdown: 0 })),
  );
  await page.goto(`${base}/projects/${id}/record`);
  await page.getByRole('button', { name: 'Try it with practice devices' }).click();
  await page.getByLabel('Microphone state').getByText('ready').waitFor();
  await page.getByRole('button', { name: /^3 Name it/ }).click();
  await wait(4000);
  await shot('record-ready');
  await page.keyboard.press('Alt+Enter');
  await page.getByTestId('elapsed').waitFor();
  const stage = await page.getByTestId('live-overlay').boundingBox();
  const spot = (x, y) => [stage.x + (stage.width * x) / 2560, stage.y + (stage.height * y) / 1440];
  await page.mouse.click(...spot(655, 112));
  await wait(400);
  await page.mouse.click(...spot(730, 270));
  await wait(400);
  await page.mouse.click(...spot(1180, 520));
  await page.keyboard.type('Celadon bowls', { delay: 60 });
  await page.keyboard.press('Alt+L');
  await page.mouse.move(...spot(1080, 610));
  await page.mouse.down();
  for (let i = 0; i <= 24; i++)
    await page.mouse.move(
      ...spot(1290 - 380 * Math.cos((i / 24) * 6.4), 675 - 75 * Math.sin((i / 24) * 6.4)),
    );
  await page.mouse.up();
  await page.keyboard.press('Alt+M');
  await wait(1500);
  await shot('record-running');
  await page.keyboard.press('Alt+Enter');
  await page.getByRole('region', { name: 'Review' }).waitFor({ timeout: 40_000 });
  await wait(1000);
  await page.getByRole('slider', { name: 'Time in the take' }).fill('4600');
  await wait(1500);
  await shot('review');
  await page.request.patch(`${base}/api/projects/${id}`, { data: { deleted: true } });
  await cutting();
  await firstDrop();
  await pointing();
  await page.goto(`${base}/projects/demo-glaze-firing/edit`);
  await page.locator('[data-clip]').first().waitFor();
  await wait(3000);
  await goTo('45');
  await shot('edit');
  await goTo('24');
  await page.getByRole('button', { name: 'Plan framings', exact: true }).click();
  await page.getByText('Select one in the Framing lane').first().waitFor();
  await shot('plan');
  await page.locator('[data-span=framings]').first().click();
  await wait(1500);
  await shot('framing');
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Footage' }).click();
  await wait(600);
  await shot('footage');
  // The take without a wall, before its own background blurred.
  await goTo('52');
  await page.getByRole('button', { name: 'Presenter', exact: true }).last().click();
  await page.getByRole('combobox', { name: 'Shape' }).selectOption('portrait');
  await page.getByRole('combobox', { name: 'Behind them' }).selectOption('blur');
  await page.getByRole('button', { name: 'Grade the key here' }).click();
  await page.getByLabel('Grade of the key').waitFor();
  await page.getByRole('heading', { name: 'Key', exact: true }).scrollIntoViewIfNeeded();
  await page.getByLabel('Grade of the key').scrollIntoViewIfNeeded();
  await wait(1500);
  await shot('presenter');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await wait(800);
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await wait(500);
  await shot('export');
  await page.getByRole('combobox', { name: 'Size' }).selectOption('960x540');
  await page.getByLabel('Range start').fill('0:33');
  await page.getByLabel('Range end').fill('0:39');
  await page.getByRole('button', { name: 'Start export' }).click();
  await page.getByRole('button', { name: 'Show in Publish' }).click();
  await page.getByRole('link', { name: 'Download' }).first().waitFor({ timeout: 120_000 });
  await page.locator('video').evaluate((video) => {
    video.currentTime = 3;
  });
  await wait(1500);
  await shot('publish');
  await page.getByRole('button', { name: 'Delete this export' }).first().click();
  await wait(800);
} finally {
  await browser.close();
  stop();
}
