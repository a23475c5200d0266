import { expect, test, type Locator, type Page } from '@playwright/test';
import { LAYOUTS } from '../src/core/layout/built-in';
import { secondsToTicks } from '../src/core/time/ticks';
import { clips, command, goTo, message, openDemo } from './edit';
import { vistum } from './media';
import { openDocument, saved } from './recording';

const box = async (of: Locator) => (await of.boundingBox())!;

/** Takes hold of a spot and lets go elsewhere, with keys held. */
async function pull(page: Page, from: { x: number; y: number }, dx: number, dy: number, held = '') {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  if (held) await page.keyboard.down(held);
  await page.mouse.move(from.x + dx, from.y + dy, { steps: 6 });
  await page.mouse.up();
  if (held) await page.keyboard.up(held);
}

/** A number of a group of Details. */
const number = (page: Page, group: string, side: string) =>
  page.getByRole('group', { name: group }).getByLabel(side, { exact: true });

test('a layout is set by hand: boxes dragged, sized and typed, kept as a preset and used again', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '25');
  await page.getByRole('button', { name: 'Layout', exact: true }).click();
  await page.getByRole('menuitem', { name: /^By hand/ }).click();
  const picture = await box(page.getByTestId('picture'));
  const presenter = page.getByTestId('layout-presenter');
  const screen = page.getByTestId('layout-screen');
  const before = await box(presenter);

  // Anywhere, not into a corner; with Alt exactly there.
  await pull(page, { x: before.x + 50, y: before.y + 60 }, -300, -90, 'Alt');
  await expect.poll(async () => Math.round((await box(presenter)).x - before.x)).toBe(-300);
  const moved = await box(presenter);
  expect(moved.y - before.y).toBeCloseTo(-90, 0);
  // A circle stays one.
  const corner = await box(page.getByTestId('layout-presenter-bottom-right'));
  await pull(page, { x: corner.x + 12, y: corner.y + 12 }, 60, 5, 'Alt');
  await expect.poll(async () => (await box(presenter)).width).toBeGreaterThan(moved.width + 50);
  const grown = await box(presenter);
  expect(grown.width / grown.height).toBeCloseTo(1, 1);
  // The screen's corner comes to rest on a third.
  const upper = await box(page.getByTestId('layout-screen-top-left'));
  const third = picture.x + picture.width / 3;
  await pull(page, { x: upper.x + 12, y: upper.y + 12 }, third - upper.x - 12 + 4, 50);
  await expect.poll(async () => Math.abs((await box(screen)).x - third)).toBeLessThan(1);
  // By keys, and by numbers.
  const left = async () => (await box(presenter)).x;
  const there = await left();
  await presenter.press('ArrowLeft');
  await expect.poll(left).toBeLessThan(there - 2);
  await number(page, 'Presenter (px)', 'Left').fill('100');
  await expect
    .poll(async () => Math.round(((await left()) - picture.x) * (1920 / picture.width)))
    .toBe(100);

  // Named, kept, and used for another step.
  await page.getByLabel('Name', { exact: true }).fill('Desk');
  await page.keyboard.press('Tab');
  await expect(page.locator('[data-span=layouts]').filter({ hasText: 'Desk' })).toHaveCount(1);
  await page.getByLabel('Goes over').selectOption('with a dissolve');
  await page.getByRole('textbox', { name: 'Takes, number' }).fill('0.8');
  await page.keyboard.press('Enter');
  await page.getByLabel('Name of this layout').fill('Desk');
  await page.getByRole('button', { name: 'Save layout', exact: true }).click();
  await page.keyboard.press('Escape');
  await goTo(page, '62');
  await page.locator('[data-span=layouts]').filter({ hasText: 'Screen only' }).click();
  await page.getByRole('list', { name: 'Layout presets' }).getByText('Desk').first().click();
  await expect(page.locator('[data-span=layouts]').filter({ hasText: 'Desk' })).toHaveCount(2);
  await saved(page);
  const { layouts } = (await openDocument(page, id)).project;
  const desks = layouts.filter(({ layout }) => layout.name === 'Desk').map((l) => l.layout);
  expect(desks).toHaveLength(2);
  expect(desks[0]).toEqual(desks[1]);
  expect(layouts.map(({ glide }) => glide)).toContain(secondsToTicks(0.8));

  // It is a command too, which can have a key.
  await page.keyboard.press('Escape');
  await goTo(page, '40');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('saved: desk');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-span=layouts]').filter({ hasText: 'Desk' })).toHaveCount(3);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-span=layouts]').filter({ hasText: 'Desk' })).toHaveCount(2);
  await goTo(page, '62');

  // Pressed on the Picture, the presenter is dragged at once; the whole is one step of undo.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  const at = { x: picture.x + (200 / 1920) * picture.width, y: moved.y + 80 };
  await pull(page, at, 120, 0, 'Alt');
  await expect(presenter).toBeFocused();
  await expect.poll(left).toBeGreaterThan(picture.x + (100 / 1920) * picture.width + 110);
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => Math.round(((await left()) - picture.x) * (1920 / picture.width)))
    .toBe(100);

  // From here to the end: the spans that follow make way.
  await page.getByRole('button', { name: 'In the whole project' }).click();
  await expect(page.locator('[data-span=layouts]')).toHaveCount(1);
});

test('a layout by hand needs a presenter, and says so', async ({ page }) => {
  await openDemo(page);
  for (const clip of await clips(page, 'presenter').all()) await expect(clip).toBeVisible();
  await page.getByRole('button', { name: 'Hide Presenter' }).click();
  await goTo(page, '25');
  await page.getByRole('button', { name: 'Layout', exact: true }).click();
  await page.getByRole('menuitem', { name: /^By hand/ }).click();
  await expect(message(page, 'There is no presenter under the playhead')).toBeVisible();
});

test('the presenter keeps clear of what is shown, and stays again', async ({ page }) => {
  const id = await openDemo(page);
  const edit = (name: string, args: object) =>
    vistum('edit', id, name, '--args', JSON.stringify(args));
  // Where the page has its headings, and without what the demo has of it.
  edit('change-presenter', { change: { corner: 'top-left' } });
  edit('keep-clear', { start: 0, end: secondsToTicks(80), spans: [] });
  await page.reload();
  await expect(clips(page, 'screen')).toHaveCount(1);
  const before = (await openDocument(page, id)).project.layouts;
  await command(page, 'Presenter keeps clear of what is shown');
  const told = message(page, /lay behind the presenter for \d+ s, now for/);
  await expect(told).toBeVisible();
  const [, hidden, left] = /for (\d+) s, now for ([\d.]+) s/.exec((await told.textContent())!)!;
  expect(Number(left)).toBeLessThan(Number(hidden) / 2);
  await saved(page);
  const clear = (await openDocument(page, id)).project.layouts.filter(
    ({ layout }) => layout.name === 'Keeps clear',
  );
  expect(clear.length).toBeGreaterThan(0);
  // Details of the presenter tell of it.
  await goTo(page, '1:12');
  const { x, y, width, height } = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.click(x + width * 0.9, y + height * 0.82);
  await page.getByRole('button', { name: 'Stay in the corner' }).click();
  await saved(page);
  expect((await openDocument(page, id)).project.layouts).toEqual(before);
});

test('layouts are suggested for the steps, each to take or to leave', async ({ page }) => {
  const id = await openDemo(page);
  // A talk would have them beside the screen; here something happens on it.
  const [start, end] = [33, 47].map(secondsToTicks);
  const args = JSON.stringify({ start, end, layout: LAYOUTS.side });
  vistum('edit', id, 'set-layout', '--args', args);
  // It cuts the one that makes room in two.
  await expect(page.locator('[data-span=layouts]')).toHaveCount(7);
  await page.getByRole('button', { name: 'Layout', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Suggest one for each step' }).click();
  const one = page.getByRole('listitem').filter({ hasText: 'Set the ramp' });
  await expect(one.getByText(/^Presenter in a corner/)).toBeVisible();
  await one.getByRole('button', { name: 'Take it' }).click();
  await expect(one).toHaveCount(0);
  await expect(page.getByText('Each step has the layout that suits')).toBeVisible();
  await saved(page);
  // The usual layout needs no span of its own.
  expect((await openDocument(page, id)).project.layouts).toHaveLength(6);
  await page.keyboard.press('Control+z');
  await one.getByRole('button', { name: 'Leave it' }).click();
  await expect(one).toHaveCount(0);
});

test('an arrangement is chosen, its screen gets corners and an edge, the presenter stays placed', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '45');
  await page.getByRole('button', { name: 'Layout', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Screen in a frame' }).click();
  await page.locator('[data-span=layouts]').filter({ hasText: 'Screen in a frame' }).click();
  await expect(page.getByTestId('layout-screen')).toBeVisible();
  await expect(page.getByTestId('layout-presenter')).toBeVisible();
  await page.getByRole('textbox', { name: 'Corners, number' }).fill('10');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Ring, number' }).fill('6');
  await page.keyboard.press('Enter');
  await saved(page);
  const { layouts } = (await openDocument(page, id)).project;
  expect(layouts.find(({ layout }) => layout.name === 'Screen in a frame')?.layout).toMatchObject({
    screen: { rounding: 0.1, ring: { width: 6 } },
    presenter: 'placed',
  });
});
