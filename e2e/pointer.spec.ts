import { expect, test, type Locator } from '@playwright/test';
import { ticksToSeconds } from '../src/core/time/ticks';
import { clips, command, drag, goTo, message, openDemo } from './edit';
import { openDocument, saved } from './recording';

/** The middle of what is on screen. */
async function middle(what: Locator): Promise<{ x: number; y: number }> {
  const box = (await what.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

test('level points are set, moved and taken away, and fades pulled, on the line of a clip', async ({
  page,
}) => {
  const id = await openDemo(page);
  const music = async () =>
    (await openDocument(page, id)).project.lanes.find((l) => l.kind === 'music')!.clips[0]!;
  const before = await music();
  const clip = clips(page, 'music').first();
  await clip.click({ position: { x: 200, y: 10 } });
  const box = (await clip.boundingBox())!;
  const points = page.locator('[data-level-point]');
  const there = await points.count();
  await page.mouse.dblclick(box.x + 300, box.y + box.height * 0.5);
  await expect(points).toHaveCount(there + 1);
  await saved(page);
  const added = (await music()).envelope.find(
    ([time]) => !before.envelope.some(([known]) => known === time),
  )!;

  // Down is softer.
  const at = { x: box.x + 300, y: box.y + box.height * 0.5 };
  await drag(page, at, 0, box.height * 0.25);
  await saved(page);
  const moved = (await music()).envelope.find(([time]) => time === added[0])!;
  expect(moved[1]).toBeLessThan(added[1] - 6);
  await page.mouse.dblclick(at.x, at.y + box.height * 0.25);
  await expect(points).toHaveCount(there);
  await saved(page);
  expect((await music()).envelope).toEqual(before.envelope);

  await drag(page, await middle(page.locator('[data-fade=in]')), 60, 0);
  await drag(page, await middle(page.locator('[data-fade=out]')), -90, 0);
  await saved(page);
  const faded = await music();
  expect(faded.fadeIn).toBeGreaterThan(before.fadeIn);
  expect(faded.fadeOut).toBeGreaterThan(before.fadeOut);
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
  await saved(page);
  expect(await music()).toEqual(before);
});

test('a transition is as long as its sides are pulled, on both sides of the cut alike', async ({
  page,
}) => {
  const id = await openDemo(page);
  const transition = async () => {
    const { project } = await openDocument(page, id);
    return project.lanes.find((l) => l.kind === 'screen')!.clips[1]!.transitionIn!;
  };
  await goTo(page, '30');
  await page.keyboard.press('b');
  await expect(clips(page, 'screen')).toHaveCount(2);
  await clips(page, 'screen')
    .nth(1)
    .click({ position: { x: 60, y: 25 } });
  await command(page, 'dissolve');
  const view = page.locator('[data-transition=dissolve]');
  await expect(view).toHaveCount(1);
  await saved(page);
  const before = await transition();
  const box = (await view.boundingBox())!;
  await drag(page, await middle(view.locator('[data-pull=end]')), 12, 0);
  await saved(page);
  const longer = await transition();
  expect(longer.duration).toBeGreaterThan(before.duration);
  const wide = (await view.boundingBox())!;
  expect(wide.x + wide.width / 2).toBeCloseTo(box.x + box.width / 2, 0);
  // Far beyond what fits it is as short as can be, and no shorter.
  await drag(page, await middle(view.locator('[data-pull=end]')), -300, 0);
  await saved(page);
  const least = ticksToSeconds((await transition()).duration);
  expect(least).toBeGreaterThan(0);
  expect(least).toBeLessThan(0.1);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await saved(page);
  expect(await transition()).toEqual(before);
});

test('footage let go on what is there is refused with a hint; with Shift room is made, with Alt it lies over it', async ({
  page,
}) => {
  const id = await openDemo(page);
  const lane = async () =>
    (await openDocument(page, id)).project.lanes.find((l) => l.kind === 'screen')!.clips;
  const ends = (list: Awaited<ReturnType<typeof lane>>) =>
    Math.max(...list.map((c) => c.start + c.duration));
  const before = await lane();
  await page.getByRole('tab', { name: 'Footage' }).click();
  const row = page
    .getByRole('list', { name: 'Footage' })
    .getByRole('listitem')
    .filter({ hasText: 'kiln-safety-slides' });
  await row.scrollIntoViewIfNeeded();
  const from = await middle(
    row.getByRole('button', { name: 'kiln-safety-slides.mp4', exact: true }),
  );
  const clip = (await clips(page, 'screen').first().boundingBox())!;
  const onto = async (key?: 'Shift' | 'Alt') => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(clip.x + 150, clip.y + clip.height / 2, { steps: 6 });
    // Held while letting go: with the key down before, a browser selects text instead of dragging.
    if (key) await page.keyboard.down(key);
    await page.mouse.move(clip.x + 200, clip.y + clip.height / 2, { steps: 3 });
    await page.mouse.up();
    if (key) await page.keyboard.up(key);
  };

  await onto();
  await expect(message(page, 'Hold Shift while letting go to make room')).toBeVisible();
  await saved(page);
  expect(await lane()).toEqual(before);

  await onto('Alt');
  await expect(clips(page, 'screen')).toHaveCount(3);
  await saved(page);
  const over = await lane();
  expect(ends(over)).toBe(ends(before));
  await page.keyboard.press('Control+z');
  await expect(clips(page, 'screen')).toHaveCount(1);

  await onto('Shift');
  await expect(clips(page, 'screen')).toHaveCount(3);
  await saved(page);
  const inserted = await lane();
  expect(ends(inserted)).toBe(ends(before) + inserted[1]!.duration);
  await page.keyboard.press('Control+z');
  await saved(page);
  expect(await lane()).toEqual(before);
});
