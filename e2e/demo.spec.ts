import { expect, test, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { statSync } from 'node:fs';
import { join } from 'node:path';
import { clips, drag, projectLink, startExport } from './edit';
import { ffmpeg, folder, ssim, vistum } from './media';
import { openDocument } from './recording';

const saved = (page: Page) =>
  expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();

/** Opens a copy of the demo, so that no test meets what another left. */
async function openDemo(page: Page, at?: string): Promise<{ errors: string[]; address: string }> {
  const address =
    at ??
    `/projects/${((await (await page.request.post('/api/projects/demo-glaze-firing/duplicate')).json()) as { id: string }).id}/edit`;
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  await page.goto(address);
  await expect(clips(page, 'screen')).toHaveCount(1);
  await expect(page.getByText('Hello, I am Ilse Varga')).toBeVisible();
  return { errors, address };
}

/** Mean brightness and spread of the shown picture: an empty or grey one has no spread. */
async function pictureSpread(page: Page): Promise<number> {
  const png = await page.getByTestId('picture').screenshot();
  const gray = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', '-', '-vf', 'scale=64:36,format=gray', '-f', 'rawvideo', '-'],
    { input: png },
  );
  const mean = gray.reduce((a, b) => a + b, 0) / gray.length;
  return Math.sqrt(gray.reduce((a, b) => a + (b - mean) ** 2, 0) / gray.length);
}

test('the demo stands among the projects and its picture plays with time', async ({ page }) => {
  // What is handed to the sound device is noted on the way.
  await page.addInitScript(() => {
    const start = AudioBufferSourceNode.prototype.start;
    const heard: number[] = [];
    Object.assign(window, { heard });
    AudioBufferSourceNode.prototype.start = function (...when) {
      heard.push(
        Array.from(this.buffer?.getChannelData(0) ?? []).reduce(
          (peak, v) => Math.max(peak, Math.abs(v)),
          0,
        ),
      );
      return start.apply(this, when);
    };
  });
  await page.goto('/');
  await projectLink(page, 'Glaze firing').click();
  await expect(page.getByRole('region', { name: 'Timeline' })).toBeVisible();
  await expect.poll(() => pictureSpread(page)).toBeGreaterThan(20);
  const before = await page.getByLabel('Timecode').inputValue();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect
    .poll(async () => page.getByLabel('Timecode').inputValue(), { timeout: 20_000 })
    .toMatch(/^00:00:0[2-9]/);
  await page.keyboard.press('k');
  expect(await page.getByLabel('Timecode').inputValue()).not.toBe(before);
  const heard = await page.evaluate(() => (window as unknown as { heard: number[] }).heard);
  expect(heard.length).toBeGreaterThan(3);
  expect(Math.max(...heard)).toBeGreaterThan(0.05);
  // Paused, the arrows go frame by frame.
  const paused = await page.getByLabel('Timecode').inputValue();
  await page
    .getByRole('region', { name: 'Picture' })
    .getByRole('button', { name: 'One frame on' })
    .click();
  await page
    .getByRole('region', { name: 'Picture' })
    .getByRole('button', { name: 'One frame back' })
    .click();
  await expect(page.getByLabel('Timecode')).toHaveValue(paused);
});

test('a user cuts, undoes after a reload, plans, adds a callout, exports and downloads', async ({
  page,
}) => {
  const { errors, address } = await openDemo(page);
  await page.getByLabel('Timecode').fill('20');
  await page.getByLabel('Timecode').press('Enter');
  await expect(page.getByLabel('Timecode')).toHaveValue('00:00:20:00');
  await expect(page.getByTestId('scale-reading')).toContainText('screen');

  // Split everything, remove the part after, undo, redo.
  await page.keyboard.press('b');
  await expect(clips(page, 'screen')).toHaveCount(2);
  await clips(page, 'screen')
    .nth(0)
    .click({ position: { x: 40, y: 25 } });
  await expect(clips(page, 'screen').nth(0)).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Shift+Delete');
  await expect(clips(page, 'screen')).toHaveCount(1);
  await saved(page);
  await page.reload();
  await expect(clips(page, 'screen')).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(clips(page, 'screen')).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(clips(page, 'screen')).toHaveCount(1);
  await expect(clips(page, 'presenter')).toHaveCount(5);

  // Trim the last clip's end inwards, and pull it out again.
  await page.keyboard.press('0');
  const last = clips(page, 'screen').first();
  const width = async () => (await last.boundingBox())!.width;
  const full = await width();
  const drag = async (by: number) => {
    const box = (await last.locator('[data-trim=end]').boundingBox())!;
    await page.mouse.move(box.x + 3, box.y + 10);
    await page.mouse.down();
    await page.mouse.move(box.x + 3 + by, box.y + 10, { steps: 6 });
    await page.mouse.up();
  };
  await drag(-120);
  expect(await width()).toBeLessThan(full - 80);
  await drag(300);
  expect(Math.abs((await width()) - full)).toBeLessThan(8);

  // Framings: planned, one selected and pinned by changing it on the Picture.
  const plan = page.getByRole('button', { name: 'Plan framings', exact: true });
  await plan.click();
  const framings = page.locator('[data-span=framings]');
  await expect(
    page.getByText(/\d framings\. Select one in the Framing lane/).first(),
  ).toBeVisible();
  const count = await framings.count();
  expect(count).toBeGreaterThanOrEqual(2);
  // How it is to be planned takes effect at once, and all of it is one step of undo.
  const summary = page.getByText(/moves a minute, the shortest rests/);
  const usual = await summary.innerText();
  await page.getByLabel('Name of this way to plan').fill('As it was');
  await page.getByRole('button', { name: 'Save way to plan', exact: true }).click();
  await page.getByRole('slider', { name: 'Shortest hold' }).fill('8');
  await expect(summary).not.toHaveText(usual);
  await page.getByRole('slider', { name: 'Calm to lively' }).fill('0');
  // A way to plan that was saved is taken up again.
  await page
    .getByRole('list', { name: 'Saved ways to plan' })
    .getByRole('button', { name: 'As it was', exact: true })
    .click();
  await expect(summary).toHaveText(usual);
  // Each framing tells what it is for, and goes there.
  await framings.first().click();
  const why = page.getByRole('region', { name: 'Why' }).getByRole('button');
  const clock = (await why.first().innerText()).match(/(\d+):(\d+)/)!;
  await why.first().click();
  await expect(page.getByLabel('Timecode')).toHaveValue(
    new RegExp(`00:0${clock[1]}:(${clock[2]}|${String(Number(clock[2]) - 1).padStart(2, '0')})`),
  );
  const corner = (await page.getByTestId('framing-corner-1-1').boundingBox())!;
  await page.mouse.move(corner.x + 6, corner.y + 6);
  await page.mouse.down();
  await page.mouse.move(corner.x - 60, corner.y - 34, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByTestId('framing-rect')).toContainText('text rebuilt');
  await expect(page.getByRole('checkbox', { name: 'Pinned' })).toBeChecked();
  await plan.click();
  await expect(page.locator('[data-span=framings][aria-label*=pinned]')).toHaveCount(1);
  await page.keyboard.press('Escape');

  // A callout at the playhead, with words of one's own.
  await page.getByLabel('Timecode').fill('20');
  await page.getByLabel('Timecode').press('Enter');
  await page.keyboard.press('x');
  await page.getByLabel('Text', { exact: true }).fill('Type the name here');
  await page.getByLabel('Text', { exact: true }).blur();
  await expect(
    page.locator('[data-span=callouts]', { hasText: 'Type the name here' }),
  ).toBeVisible();
  await saved(page);

  // Export a few seconds and download them.
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('combobox', { name: 'Size' }).selectOption('960x540');
  await page.getByLabel('Range start').fill('19');
  await page.getByLabel('Range end').fill('22');
  await startExport(page);
  await expect(page.getByRole('heading', { name: 'Exports' })).toBeVisible();
  const link = page.getByRole('link', { name: 'Download' });
  await expect(link).toBeVisible({ timeout: 120_000 });
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
  const path = join(folder, 'downloaded.mp4');
  await download.saveAs(path);
  expect(download.suggestedFilename()).toBe('Glaze firing (copy).mp4');
  expect(statSync(path).size).toBeGreaterThan(10_000);
  const probe = execFileSync('ffprobe', [
    '-v',
    'error',
    '-count_frames',
    '-select_streams',
    'v',
    '-show_entries',
    'stream=width,height,nb_read_frames',
    '-of',
    'csv=p=0',
    path,
  ]).toString();
  expect(probe.trim()).toBe('960,540,90');
  expect(errors).toEqual([]);

  // All of it undone again.
  await page.goto(address);
  await expect(clips(page, 'screen')).toHaveCount(1);
  const undo = page.getByRole('button', { name: /^Undo: / });
  await expect(undo).toBeVisible();
  for (let i = 0; i < 30 && (await undo.count()) > 0; i++) await page.keyboard.press('Control+z');
  await expect(undo).toHaveCount(0);
  await expect(page.locator('[data-span=callouts]', { hasText: 'Type the name here' })).toHaveCount(
    0,
  );
  await saved(page);
});

test('two tabs that change different things take over from each other what was saved', async ({
  page,
  context,
}) => {
  const { address } = await openDemo(page);
  const other = await context.newPage();
  await openDemo(other, address);
  for (const [tab, at] of [
    [page, '15'],
    [other, '25'],
  ] as const) {
    await tab.getByLabel('Timecode').fill(at);
    await tab.getByLabel('Timecode').press('Enter');
    await tab.keyboard.press('m');
  }
  for (const tab of [page, other]) {
    await expect(tab.getByRole('button', { name: /^Marker: Marker/ })).toHaveCount(2);
    await saved(tab);
  }
  await other.keyboard.press('Escape');
  await other.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Marker: Marker/ })).toHaveCount(1);
  await saved(other);
  await other.close();
  await page.keyboard.press('Control+z');
  await saved(page);
});

test('two tabs: the stale one says so and saves nothing', async ({ page, context }) => {
  const { address } = await openDemo(page);
  const other = await context.newPage();
  await openDemo(other, address);
  // What the first saves is on its way until the other has done the same.
  let both = () => {};
  const done = new Promise<void>((resolve) => (both = resolve));
  await page.route('**/api/projects/*/changes', async (route) => {
    await done;
    await route.continue();
  });
  for (const tab of [page, other]) {
    await tab.getByLabel('Timecode').fill('15');
    await tab.getByLabel('Timecode').press('Enter');
    await tab.keyboard.press('b');
  }
  both();
  const warned = async (tab: Page) =>
    (await tab.getByRole('alert').filter({ hasText: 'changed in another tab' }).count()) > 0;
  await expect.poll(async () => (await warned(page)) || (await warned(other))).toBe(true);
  await other.close({ runBeforeUnload: false });
  await page.reload();
  await page.keyboard.press('Control+z');
  await saved(page);
});

test('the presenter moves to another corner, is keyed, shows its matte and gets a shape of its own', async ({
  page,
}) => {
  const { address } = await openDemo(page);
  const id = /projects\/([^/]+)/.exec(address)![1]!;
  await page.getByLabel('Timecode').fill('15');
  await page.getByLabel('Timecode').press('Enter');
  await page.getByRole('button', { name: 'Presenter', exact: true }).last().click();
  await page.getByRole('button', { name: 'top left' }).click();
  await expect(page.getByRole('button', { name: 'top left' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.getByRole('button', { name: 'Show matte' }).click();
  await expect(page.getByText('Matte: white stays')).toBeVisible();
  // In the matte, the corner of the recording is wall: black.
  await expect
    .poll(async () => {
      const png = await page.getByTestId('picture').screenshot();
      const gray = execFileSync(
        'ffmpeg',
        ['-v', 'error', '-i', '-', '-vf', 'scale=64:36,format=gray', '-f', 'rawvideo', '-'],
        {
          input: png,
        },
      );
      return [gray[3 * 64 + 4]! < 40, gray[18 * 64 + 32]! > 200];
    })
    .toEqual([true, true]);
  await page.getByRole('button', { name: 'Back to the Picture' }).click();
  await page.getByRole('button', { name: 'Pick its colour' }).click();
  await page.getByTestId('picture').click({ position: { x: 40, y: 60 } });
  await expect(page.getByRole('button', { name: 'Pick its colour' })).toBeVisible();
  const color = await page.getByRole('textbox', { name: 'Background colour' }).inputValue();
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(color.slice(i, i + 2), 16)) as [
    number,
    number,
    number,
  ];
  expect(g).toBeGreaterThan(Math.max(r, b) + 30);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await saved(page);

  // An outline of one's own, mended by hand.
  const picture = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.click(picture.x + picture.width * 0.9, picture.y + picture.height * 0.82);
  await page.getByLabel('Shape', { exact: true }).selectOption('Own shape');
  const points = page.getByTestId('shape-point');
  await expect(points).toHaveCount(8);
  const before = (await points.nth(2).boundingBox())!;
  await drag(page, { x: before.x + 12, y: before.y + 12 }, -20, 4);
  await expect.poll(async () => (await points.nth(2).boundingBox())!.x).toBeLessThan(before.x - 15);
  await points.nth(4).press('Enter');
  await expect(points).toHaveCount(9);
  await points.nth(1).press('Delete');
  await expect(points).toHaveCount(8);
  const path = async () => {
    await saved(page);
    return (await openDocument(page, id)).project.presenter.path;
  };
  expect(await path()).toHaveLength(8);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  expect(await path()).toBeUndefined();
});

test('the exported demo looks like its stills, keeps within the sharp limit and has no green left', () => {
  const framings = vistum<{ magnification: number }[]>('plan', 'demo-glaze-firing');
  for (const { magnification } of framings) expect(magnification).toBeLessThanOrEqual(4 / 3 + 1e-9);
  const out = join(folder, 'demo.mp4');
  vistum('export', 'demo-glaze-firing', '--out', out, '--range', '33-43', '--size', '1920x1080');
  for (const at of [34, 37.5, 41.2]) {
    const still = join(folder, `still-${at}.png`);
    vistum('still', 'demo-glaze-firing', '--at', String(at), '--out', still);
    expect(ssim(out, still, Math.round((at - 33) * 30))).toBeGreaterThan(0.98);
  }
  // Chroma of the inset's place: nothing there is as green as the wall.
  const uv = ffmpeg(
    '-ss',
    '2',
    '-i',
    out,
    '-frames:v',
    '1',
    '-vf',
    'crop=340:340:1540:702,format=yuv444p',
    '-f',
    'rawvideo',
    '-',
  );
  const count = 340 * 340;
  let green = 0;
  for (let i = 0; i < count; i++) if (uv[count + i]! < 112 && uv[2 * count + i]! < 112) green++;
  expect(green / count).toBeLessThan(0.004);
});

test('covers are made solid, the rest is dimmed, and a GIF of a stretch is made and shown', async ({
  page,
}) => {
  await openDemo(page);
  /** Mean brightness of a part of the Picture, in shares of it, 0 to 255. */
  const light = async (x: number, y: number, size = 0.05): Promise<number> => {
    const png = await page.getByTestId('picture').screenshot();
    const crop = `crop=iw*${size}:ih*${size}:iw*${x}:ih*${y},scale=1:1:flags=area,format=gray`;
    return execFileSync('ffmpeg', ['-v', 'error', '-i', '-', '-vf', crop, '-f', 'rawvideo', '-'], {
      input: png,
    })[0]!;
  };
  const goTo = async (time: string) => {
    await page.getByLabel('Timecode').fill(time);
    await page.getByLabel('Timecode').press('Enter');
  };
  await goTo('62');
  await page.locator('[data-span="callouts"][aria-label^="cover"]').first().focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Style', { exact: true }).selectOption('solid');
  await expect.poll(() => light(0.6, 0.4)).toBeLessThan(70);
  await page.keyboard.press('Control+z');
  await expect.poll(() => light(0.6, 0.4)).toBeGreaterThan(200);

  await page.locator('[data-span="pointer"]').first().focus();
  await page.keyboard.press('Enter');
  const before = await light(0.05, 0.8);
  await page.getByLabel('Dim around').check();
  await expect.poll(() => light(0.05, 0.8)).toBeLessThan(before * 0.75);
  await page.keyboard.press('Control+z');
  await saved(page);

  await page.getByRole('button', { name: 'Export', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Export' });
  await dialog.getByLabel('For', { exact: true }).selectOption('deck');
  await dialog.getByLabel('Format').selectOption('gif');
  await expect(dialog.getByLabel('Size', { exact: true })).toHaveValue('960x540');
  await dialog.getByLabel('Range start').fill('0:20');
  await dialog.getByLabel('Range end').fill('0:22');
  await startExport(page);
  await expect(page.getByText('.gif').first()).toBeVisible();
  const picture = page.getByRole('img', { name: 'Glaze firing' });
  await expect(picture).toBeVisible({ timeout: 60_000 });
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(960);
});
