import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { wavFile } from '../src/core/audio/wav';
import { secondsToTicks, ticksToSeconds } from '../src/core/time/ticks';
import { clips, drag, goTo, message, openDemo } from './edit';
import { ffmpeg, folder, vistum } from './media';
import { newProject, openDocument, saved } from './recording';

/** The camera began so much before the screen recording, in seconds. */
const EARLIER = 1.5;
const SECONDS = 12;
const screen = join(folder, 'week view screen.mp4');
const camera = join(folder, 'week view camera.mp4');

/** Bursts at odd times, as speech has them. */
function talk(seconds: number): Float32Array {
  let state = 7;
  const next = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  const out = new Float32Array(seconds * 48_000);
  for (let at = 0; at < out.length; at += Math.floor((0.1 + next() * 0.4) * 48_000)) {
    const [loud, pitch] = [0.2 + next() * 0.6, 200 + next() * 2000];
    for (let i = 0; i < 6000 && at + i < out.length; i++)
      out[at + i]! += loud * Math.exp(-i / 2000) * Math.sin((2 * Math.PI * pitch * i) / 48_000);
  }
  return out;
}

test.beforeAll(() => {
  const room = join(folder, 'room.wav');
  writeFileSync(room, wavFile([talk(SECONDS + EARLIER)], 48_000));
  const make = (picture: string, from: number, target: string) =>
    ffmpeg(
      ...['-f', 'lavfi', '-i', picture, '-ss', String(from), '-t', String(SECONDS), '-i', room],
      ...['-t', String(SECONDS), '-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p'],
      ...['-c:a', 'aac', target],
    );
  make(`testsrc2=s=1280x720:r=30:d=${SECONDS}`, EARLIER, screen);
  make(`color=teal:s=640x480:r=30:d=${SECONDS}`, 0, camera);
});

/** Lets files go over the page, as from a folder of the computer. */
async function drop(page: Page, ...paths: readonly string[]): Promise<void> {
  const files = paths.map((path) => ({
    name: path.split('/').pop()!,
    base64: readFileSync(path).toString('base64'),
  }));
  await page.evaluate((all) => {
    const carried = new DataTransfer();
    for (const { name, base64 } of all) {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      carried.items.add(new File([bytes], name));
    }
    for (const type of ['dragover', 'drop'])
      document.body.dispatchEvent(
        new DragEvent(type, { dataTransfer: carried, bubbles: true, cancelable: true }),
      );
  }, files);
}

test('a newcomer comes from two raw files to an exported tutorial in six presses', async ({
  page,
}) => {
  let presses = 0;
  const press = async (name: string, role: 'button' | 'link' = 'button') => {
    presses++;
    await page.getByRole(role, { name, exact: true }).first().click();
  };
  await page.goto('/');
  await press('New project');
  await page.getByRole('textbox', { name: 'Name' }).fill('Week view');
  await press('Make project');
  await page.getByRole('link', { name: 'Edit', exact: true }).waitFor();
  // In the Outline, where one lands; they are sent, told apart, lined up and placed.
  await drop(page, screen, camera);
  await expect(message(page, '2 recordings placed; 2 lined up by their sound.')).toBeVisible({
    timeout: 30_000,
  });
  await press('Edit', 'link');
  await expect(clips(page, 'screen')).toHaveCount(1);
  await expect(clips(page, 'presenter')).toHaveCount(1);
  await press('Halo');
  await saved(page);
  const id = /projects\/([^/]+)/.exec(page.url())![1]!;
  const { project } = await openDocument(page, id);
  /** When a recording begins, of which a clip may show a later part. */
  const startOf = (kind: string) => {
    const { start, source } = project.lanes.find((l) => l.kind === kind)!.clips[0]!;
    return ticksToSeconds(start - source);
  };
  expect(startOf('presenter')).toBe(0);
  // As near as sounds tell where they begin, whatever the frames.
  expect(Math.abs(startOf('screen') - EARLIER)).toBeLessThan(0.01);
  expect(project.pointer).toHaveLength(1);
  await press('Export');
  await press('Start export');
  expect(presses).toBe(6);
  // Edit stays, and says when it is done.
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(message(page, 'Week view is exported.')).toBeVisible({ timeout: 90_000 });
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('list', { name: 'Exports' }).getByRole('listitem')).toHaveCount(1);
  const video = page.locator('video');
  await expect(video).toBeVisible();
  const [found] = (await (await page.request.get(`/api/projects/${id}/exports`)).json()) as {
    id: string;
  }[];
  const out = join(folder, 'newcomer.mp4');
  writeFileSync(out, await (await page.request.get(`/api/exports/${found!.id}/video`)).body());
  const told = execFileSync('ffprobe', [
    ...['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', out],
  ]);
  expect(Math.abs(Number(told) - SECONDS - EARLIER)).toBeLessThan(0.1);
});

test('files are taken in any place, the same one once, and refusals are all told', async ({
  page,
}) => {
  const id = await newProject(page, 'Dropped');
  const notes = join(folder, 'notes.txt');
  const empty = join(folder, 'empty.mp4');
  writeFileSync(notes, 'no recording');
  writeFileSync(empty, '');
  await page.goto(`/projects/${id}/publish`);
  await expect(page.getByText('No export yet.')).toBeVisible();
  await drop(page, camera);
  await expect(message(page, /being added to Footage/)).toBeVisible();
  await page.getByRole('link', { name: 'Edit', exact: true }).first().click();
  await expect(clips(page, 'presenter')).toHaveCount(1, { timeout: 30_000 });
  await drop(page, camera, screen, notes, empty);
  await expect(message(page, `${camera.split('/').pop()!} is in Footage already.`)).toBeVisible();
  await expect(message(page, /2 files could not be added/)).toBeVisible();
  for (const name of ['notes.txt', 'empty.mp4'])
    await expect(
      page.getByRole('button', { name: `Dismiss the message on ${name}` }),
    ).toBeVisible();
  // Something stands there already: nothing is placed by itself.
  await expect(message(page, /in Footage\.$/)).toBeVisible({ timeout: 30_000 });
  await expect(clips(page, 'screen')).toHaveCount(0);
  await page.getByRole('button', { name: 'Place at the end' }).first().click();
  await expect(clips(page, 'screen')).toHaveCount(1);
  await expect(page.getByRole('list', { name: 'Footage' }).getByRole('listitem')).toHaveCount(2);
});

test('what is seen in the Picture is pressed, dragged, sized and removed there', async ({
  page,
}) => {
  const id = await openDemo(page);
  // They stand where the project places them.
  const range = { start: 0, end: secondsToTicks(80) };
  vistum('edit', id, 'keep-clear', '--args', JSON.stringify({ ...range, spans: [] }));
  await page.reload();
  await expect(clips(page, 'screen')).toHaveCount(1);
  await goTo(page, '45');
  const picture = (await page.getByTestId('picture').boundingBox())!;
  const at = (x: number, y: number) => ({
    x: picture.x + picture.width * x,
    y: picture.y + picture.height * y,
  });
  // The presenter: to the left by the pointer, up by an arrow key, larger by the corner.
  await drag(page, at(0.895, 0.8), -picture.width * 0.6, 0);
  await expect(page.getByRole('heading', { name: 'Presenter' })).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('button', { name: 'top left' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  const corner = (await page.getByTestId('presenter-size').boundingBox())!;
  await drag(page, { x: corner.x + 5, y: corner.y + 5 }, 40, 40);
  await saved(page);
  const placed = (await openDocument(page, id)).project.presenter;
  expect(placed.corner).toBe('top-left');
  expect(placed.size).toBeGreaterThan(0.35);

  // A callout: its words are dragged, nudged by keys, and it is removed.
  const words = at(0.627, 0.416);
  await drag(page, words, 0, 30, 'Alt');
  await expect(page.getByRole('heading', { name: 'Callout' })).toBeVisible();
  await page.keyboard.press('Shift+ArrowRight');
  await saved(page);
  const { callouts } = (await openDocument(page, id)).project;
  const before = (await openDocument(page, 'demo-glaze-firing')).project.callouts;
  const moved = callouts.find((c) => c.kind === 'text') as { offset: { dx: number; dy: number } };
  const old = before.find((c) => c.kind === 'text') as typeof moved;
  expect(moved.offset.dx - old.offset.dx).toBeCloseTo(10, 5);
  expect(moved.offset.dy - old.offset.dy).toBeCloseTo((30 * 1080) / picture.height, 0);
  await page.keyboard.press('Delete');
  await expect(page.getByTestId('callout-words')).toHaveCount(0);

  // Where the layout places the presenter, dragging them changes nothing that is not seen.
  await goTo(page, '3');
  await drag(page, at(0.5, 0.6), picture.width * 0.3, picture.height * 0.2);
  await expect(page.getByText('The presenter is not in a corner here')).toBeVisible();
  await saved(page);
  expect((await openDocument(page, id)).project.presenter).toEqual(placed);
  await goTo(page, '45');

  // The screen is selected by a press, and has its menu.
  await page.mouse.click(at(0.3, 0.9).x, at(0.3, 0.9).y, { button: 'right' });
  await page.getByRole('menuitem', { name: /^Split at the playhead/ }).click();
  await expect(clips(page, 'screen')).toHaveCount(2);
});

test('everything on the timeline has a menu, and is reached by keys from the playhead', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '62');
  await page.locator('[data-span=callouts]').nth(1).click({ button: 'right' });
  await page.getByRole('menuitem', { name: /^Lift/ }).click();
  await expect(page.locator('[data-span=callouts]')).toHaveCount(2);
  await page.locator('[data-step]').nth(2).click({ button: 'right' });
  await expect(page.getByRole('menuitem', { name: /^In and out around/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('menu')).toHaveCount(0);

  // By keys alone: down from row to row, then the menu key.
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[data-span=layouts][aria-pressed=true]')).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[data-span=callouts][aria-pressed=true]')).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(clips(page, 'presenter').and(page.locator(':focus'))).toHaveCount(1);
  await page.keyboard.press('Shift+F10');
  await expect(page.getByRole('menuitem', { name: /^Trim the start/ })).toBeVisible();
  await page.keyboard.press('Escape');
  // One stop of Tab for a bar of tools.
  await page.getByRole('toolbar', { name: 'Edit' }).getByRole('button').nth(4).focus();
  await page.keyboard.press('ArrowRight');
  await expect(
    page.getByRole('toolbar', { name: 'Edit' }).getByRole('button').nth(5),
  ).toBeFocused();

  // A range is drawn on the ruler with Shift, and its ends are pulled.
  const ruler = (await page.getByTestId('ruler').boundingBox())!;
  await drag(page, { x: ruler.x + 200, y: ruler.y + 10 }, 120, 0, 'Shift');
  const range = page.getByRole('group', { name: 'Range' });
  const length = async () => Number(/([\d.]+) s/.exec((await range.textContent())!)![1]);
  const drawn = await length();
  const end = (await page.getByTestId('range-out').boundingBox())!;
  await drag(page, { x: end.x + 4, y: end.y + 10 }, 60, 0);
  expect((await length()) / drawn).toBeCloseTo(1.5, 1);

  // Where one was is found again after a reload, and after another place.
  await goTo(page, '30');
  await page.keyboard.press('Escape');
  await page.keyboard.press('+');
  await page.getByRole('tab', { name: 'Footage' }).click();
  await saved(page);
  const wide = () =>
    page.getByTestId('timeline').evaluate((element) => Math.round(element.scrollWidth / 10));
  const width = await wide();
  for (const again of [() => page.reload(), () => page.goto(`/projects/${id}/outline`)]) {
    await again();
    if (page.url().endsWith('outline'))
      await page.getByRole('link', { name: 'Edit', exact: true }).click();
    await expect(page.getByLabel('Timecode')).toHaveValue('00:00:30:00');
    await expect(page.getByRole('tab', { name: 'Footage' })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    await expect.poll(wide).toBe(width);
  }

  // The whole is in a strip below, which scrolls by the pointer and by keys.
  const left = () => page.getByTestId('timeline').evaluate((element) => element.scrollLeft);
  await page.keyboard.press('+');
  await page.keyboard.press('Home');
  await expect.poll(left).toBe(0);
  const strip = (await page.getByTestId('overview').boundingBox())!;
  await drag(page, { x: strip.x + 50, y: strip.y + 7 }, 150, 0);
  const dragged = await left();
  expect(dragged).toBeGreaterThan(200);
  await page.getByRole('scrollbar', { name: 'The whole timeline' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(left).toBeGreaterThan(dragged);
  await page.keyboard.press('0');
  await expect(page.getByTestId('overview')).toHaveCount(0);

  // The Picture has all of the place while one looks at it.
  const size = async () => (await page.getByTestId('picture').boundingBox())!.width;
  const small = await size();
  await page.keyboard.press('e');
  await expect.poll(size).toBeGreaterThan(small * 1.5);
  await page.keyboard.press('Escape');
  await expect.poll(size).toBeLessThan(small * 1.1);
  // The divider is moved by keys.
  await page.getByRole('separator', { name: 'Between Picture and timeline' }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowUp');
  await expect.poll(size).toBeLessThan(small * 0.95);
});
