import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test, type Page } from '@playwright/test';
import type { Callout } from '../src/core/project/model';
import { drag, goTo, message, middle, openDemo } from './edit';
import { openDocument, saved } from './recording';

const number = (page: Page, label: string) => page.getByLabel(`${label}, number`, { exact: true });
/** Opens the menu of shapes and chooses an entry, or one beside it. */
async function choose(page: Page, ...names: readonly (string | RegExp)[]): Promise<void> {
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  for (const name of names) await page.getByRole('menuitem', { name, exact: true }).click();
}
/** The latest callout of a kind, or of some words, as it is saved. */
async function newest(page: Page, id: string, what: string): Promise<Callout> {
  await saved(page);
  const { project } = await openDocument(page, id);
  return (project as { callouts: Callout[] }).callouts.findLast(
    (one) => one.kind === what || ('text' in one && one.text === what),
  )!;
}

test('a place that is kept at two times goes over from the one to the other, and is taken back', async ({
  page,
}) => {
  const id = await openDemo(page);
  // Here the view rests.
  await goTo(page, '32');
  await choose(page, 'Count');
  const handle = page.getByTestId('callout-at');
  const from = await middle(handle);
  await page.getByRole('button', { name: 'Keep here' }).click();
  await goTo(page, '34');
  await drag(page, await middle(handle), 120, 60, 'Alt');
  await number(page, 'Opacity').fill('40');
  await number(page, 'Opacity').press('Enter');
  await expect(page.getByRole('list', { name: 'Kept places' }).getByRole('listitem')).toHaveCount(
    2,
  );
  const to = await middle(handle);
  expect(to.x - from.x).toBeCloseTo(120, 0);
  await goTo(page, '33.1');
  const between = await middle(handle);
  expect(between.x).toBeGreaterThan(from.x + 40);
  expect(between.x).toBeLessThan(to.x - 40);
  const kept = await newest(page, id, 'count');
  expect(kept.keyframes.map(({ opacity }) => opacity)).toEqual([1, 0.4]);
  // The way between two kept places is never that of the callout itself.
  expect(kept.pose).toMatchObject({ dx: 0, dy: 0, opacity: 1 });
  await page
    .getByRole('button', { name: /^No longer keep/ })
    .last()
    .click();
  await goTo(page, '34');
  expect((await middle(handle)).x).toBeCloseTo(from.x, 0);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await middle(handle)).x).toBeCloseTo(to.x, 0);
});

test('a callout is drawn on the Picture from where it begins to where it ends, in the theme of the project', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '35');
  await page.getByRole('tab', { name: 'Details' }).click();
  await number(page, 'Line width').fill('12');
  await number(page, 'Line width').press('Enter');
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Draw it on the Picture' }).click();
  await choose(page, 'Arrow');
  const picture = (await page.getByTestId('picture').boundingBox())!;
  const from = { x: picture.x + 120, y: picture.y + 240 };
  await drag(page, from, 160, -80);
  const [begin, end] = [page.getByTestId('callout-from'), page.getByTestId('callout-to')];
  expect((await middle(begin)).x).toBeCloseTo(from.x, 0);
  expect((await middle(end)).x).toBeCloseTo(from.x + 160, 0);
  expect((await middle(end)).y).toBeCloseTo(from.y - 80, 0);
  expect(await newest(page, id, 'arrow')).toMatchObject({ width: 16, color: '#c2412d' });
  // Escape leaves it, and nothing is drawn then.
  await choose(page, 'Box');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('shape-draw')).toHaveCount(0);
  expect(await newest(page, id, 'box')).toBeUndefined();
});

test('a still of the footage lies over the recording, see-through where it is so, and goes with its footage', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '35');
  const canvas = createCanvas(200, 200);
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#0000ff';
  pen.fillRect(50, 50, 100, 100);
  const buffer = canvas.toBuffer('image/png');
  await page.getByRole('tab', { name: 'Footage' }).click();
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'sticker.png', mimeType: 'image/png', buffer });
  await expect(message(page, 'sticker.png is in Footage.')).toBeVisible();
  await choose(page, 'Picture', 'sticker.png');
  await expect(page.getByRole('heading', { name: 'Picture', exact: true })).toBeVisible();
  const area = (await page.getByTestId('callout-area').boundingBox())!;
  const at = async (x: number, y: number) => {
    const shot = await loadImage(await page.screenshot());
    const read = createCanvas(shot.width, shot.height).getContext('2d');
    read.drawImage(shot, 0, 0);
    return [...read.getImageData(Math.round(x), Math.round(y), 1, 1).data].slice(0, 3);
  };
  const isBlue = ([r, g, b]: number[]) => r! < 60 && g! < 60 && b! > 180;
  await expect
    .poll(async () => isBlue(await at(area.x + area.width / 2, area.y + area.height / 2)))
    .toBe(true);
  expect(isBlue(await at(area.x + area.width / 8, area.y + area.height / 8))).toBe(false);
  expect(await newest(page, id, 'picture')).toMatchObject({ kind: 'picture' });
  await page.getByRole('tab', { name: 'Footage' }).click();
  await page.getByRole('button', { name: /Delete sticker\.png/ }).click();
  await page.getByRole('button', { name: 'Delete with its pictures' }).click();
  expect(await newest(page, id, 'picture')).toBeUndefined();
});

test('words without a ground are told to be hard to read, and get an outline; a callout is saved and used again', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '35');
  await page.keyboard.press('x');
  await page.getByLabel('Text', { exact: true }).fill('White on white');
  await page.getByLabel('Text', { exact: true }).blur();
  await page.getByRole('checkbox', { name: 'Ground' }).click();
  await page.getByRole('button', { name: 'Give it an outline' }).click();
  await expect(page.getByRole('button', { name: 'Give it an outline' })).toHaveCount(0);
  expect(await newest(page, id, 'White on white')).toMatchObject({
    ...{ ground: false, edge: '#1e2a32' },
  });
  await page.getByLabel('Name of this callout').fill('White words');
  await page.getByLabel('Name of this callout').press('Enter');
  await goTo(page, '50');
  await choose(page, 'Saved', 'White words');
  await expect(page.getByLabel('Text', { exact: true })).toHaveValue('White on white');
  await expect
    .poll(async () => (await newest(page, id, 'White on white')).start / 705_600_000)
    .toBeGreaterThan(49);
});
