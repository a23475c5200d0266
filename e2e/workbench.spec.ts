import { expect, test, type Page } from '@playwright/test';
import { clips, goTo, message, middle, openDemo } from './edit';

/** What the page shows, but for the Picture itself, as a number that tells it from others. */
const shown = (page: Page) =>
  page.evaluate(() => {
    const fields = [...document.querySelectorAll('input')].map((field) => field.value);
    const text = `${document.body.innerHTML} ${fields.join()}`;
    let hash = 0;
    for (let i = 0; i < text.length; i++) hash = (hash * 31 + text.charCodeAt(i)) | 0;
    return hash;
  });

/** These have nothing to do in the demo as the test leaves it. */
const IDLE = [
  /^Pause$/,
  /^To the (marker before|next marker)$/,
  /^Fit the timeline$/,
  /^Select the (next|whole)/,
  /^Copy$/,
  /^Clear in and out$/,
];

/** Each in a page of its own, so that none takes long. */
const SHARES = 4;
for (let share = 0; share < SHARES; share++)
  test(`every command, done from the list by keys, does something or says why not (${share + 1} of ${SHARES})`, async ({
    page,
  }) => {
    await openDemo(page);
    await page.keyboard.press('Control+k');
    // Told by what it is made of: roles take long to be worked out for all of a page, again and again.
    const list = page.locator('[cmdk-root]');
    await expect(page.getByRole('dialog', { name: 'Commands' }).locator(list)).toBeVisible();
    const labels = await list
      .getByRole('option')
      .evaluateAll((options) => options.map((option) => option.firstChild!.textContent!));
    await page.keyboard.press('Escape');
    expect(labels.length).toBeGreaterThan(80);
    const undone = (await page
      .getByRole('toolbar', { name: 'Edit' })
      .getByRole('button', { name: /^Undo(:|$)/ })
      .elementHandle())!;
    const timecode = page.getByLabel('Timecode');
    await goTo(page, '62');
    const start = await timecode.inputValue();
    const faults: string[] = [];
    page.on('pageerror', (error) => faults.push(error.message));
    const silent: string[] = [];
    for (const label of labels.filter((_, i) => i % SHARES === share)) {
      if (label === 'Undo' || label === 'Redo') continue;
      await page.keyboard.press('Escape');
      if ((await timecode.inputValue()) !== start) await goTo(page, '62');
      await clips(page, 'presenter').last().press('Enter');
      const last = await undone.getAttribute('aria-label');
      const before = await shown(page);
      await page.keyboard.press('Control+k');
      await list.locator('[cmdk-input]').fill(label);
      const found = await list.locator('[cmdk-item]').allTextContents();
      const exact = found
        .filter((text) => text.includes(label))
        .findIndex((text) => text.startsWith(label));
      for (let i = 0; i < exact; i++) await page.keyboard.press('ArrowDown');
      await page.keyboard.press('Enter');
      await expect(list).toHaveCount(label === 'Command list' ? 1 : 0);
      const changed = () => shown(page).then((now) => now !== before);
      if (!IDLE.some((idle) => idle.test(label)))
        await expect
          .poll(changed, { timeout: 4000, intervals: [20, 50, 100] })
          .toBe(true)
          .catch(() => silent.push(label));
      await page.keyboard.press('Escape');
      if ((await undone.getAttribute('aria-label')) !== last)
        await page.keyboard.press('Control+z');
    }
    expect(silent).toEqual([]);
    expect(faults).toEqual([]);
  });

test('a key is changed in the table, is there after a reload, and is set back', async ({
  page,
}) => {
  await openDemo(page);
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await page.keyboard.press('?');
  await keys.getByLabel('Find a key').fill('marker here');
  await keys.getByRole('button', { name: /^Key for Marker here/ }).click();
  // Taken by something else: said, and given over on request.
  await page.keyboard.press('b');
  await expect(keys.getByRole('alert')).toContainText('Split at the playhead');
  await keys.getByRole('button', { name: 'Leave it' }).click();
  await keys.getByRole('button', { name: /^Key for Marker here/ }).click();
  await page.keyboard.press('Control+w');
  await expect(keys.getByRole('alert')).toContainText('Ctrl+W');
  await page.keyboard.press('Shift+K');
  await expect(keys.getByRole('button', { name: 'Key for Marker here: Shift+K' })).toBeVisible();
  // Found by its key, too.
  await keys.getByLabel('Find a key').fill('shift+k');
  await expect(keys.getByRole('button', { name: /^Key for/ })).toHaveCount(1);
  await keys.getByRole('button', { name: 'Done' }).click();
  await page.reload();
  const markers = page.locator('[data-marker]');
  await expect(clips(page, 'screen')).toHaveCount(1);
  await page.keyboard.press('m');
  await page.keyboard.press('Shift+K');
  await expect(markers).toHaveCount(1);
  await page.keyboard.press('?');
  await keys.getByRole('button', { name: 'Restore defaults' }).click();
  await keys.getByRole('button', { name: 'Done' }).click();
  await goTo(page, '30');
  await page.keyboard.press('Shift+K');
  await page.keyboard.press('m');
  await expect(markers).toHaveCount(2);
});

test('several things have their settings in common, and move together on the Picture', async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, '63');
  const covers = page.locator('[data-span=callouts]').filter({ hasText: 'cover' });
  await covers.nth(0).click();
  await covers.nth(1).click({ modifiers: ['Control'] });
  await expect(page.getByRole('heading', { name: '2 selected' })).toBeVisible();
  const areas = page.getByTestId('callout-area');
  await expect(areas).toHaveCount(2);
  const at = async () =>
    (await Promise.all([0, 1].map((i) => areas.nth(i).boundingBox()))).map((box) => box!.x);
  const before = await at();
  const from = await middle(areas.first());
  // Anywhere, whatever line is near.
  await page.keyboard.down('Alt');
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x - 60, from.y, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
  const after = await at();
  for (const i of [0, 1]) expect(before[i]! - after[i]!).toBeCloseTo(60, 0);
  // Brought in line by their upper edges, which is one step of undo.
  const tops = async () =>
    (await Promise.all([0, 1].map((i) => areas.nth(i).boundingBox()))).map((box) => box!.y);
  const apart = await tops();
  await page.getByRole('button', { name: 'Left edges in line' }).click();
  await expect.poll(async () => Math.abs((await at())[0]! - (await at())[1]!)).toBeLessThan(1);
  expect(await tops()).toEqual(apart);
  await page.keyboard.press('Control+z');
  await expect.poll(at).toEqual(after);
  await page.getByRole('button', { name: 'Same room across' }).click();
  await expect(message(page, /^Select three callouts/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Strength, number' }).fill('9');
  await page.keyboard.press('Enter');
  await covers.nth(1).click();
  await expect(page.getByRole('textbox', { name: 'Strength, number' })).toHaveValue('9');
  // One step of undo each.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await covers.nth(0).click();
  await expect.poll(async () => (await areas.first().boundingBox())!.x).toBeCloseTo(before[0]!, 0);

  // Clips of sound and a framing: each takes what it has.
  await page.keyboard.press('Escape');
  await clips(page, 'voice').nth(0).click();
  await clips(page, 'music').click({ modifiers: ['Control'] });
  await page
    .locator('[data-span=framings]')
    .first()
    .click({ modifiers: ['Control'] });
  await expect(page.getByText('2 clips, 1 framing')).toBeVisible();
  await page.getByRole('checkbox', { name: 'Muted' }).check();
  await page.getByRole('checkbox', { name: /^Pinned/ }).check();
  await clips(page, 'music').click();
  await expect(page.getByRole('checkbox', { name: 'Muted' })).toBeChecked();
  await page.locator('[data-span=framings]').first().click();
  await expect(page.getByRole('checkbox', { name: 'Pinned' })).toBeChecked();
});

test('the presenter is turned; lanes show their level; the preview has the size one likes', async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, '20');
  await page.getByRole('button', { name: 'Layout', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Presenter settings' }).click();
  const knob = page.getByTestId('presenter-turn');
  const { x, y } = await middle(knob);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 40, y + 10, { steps: 5 });
  await page.mouse.up();
  const turned = async () => Number(/(-?\d+)°/.exec((await knob.getAttribute('title'))!)![1]);
  const dragged = await turned();
  expect(dragged).toBeGreaterThan(20);
  await knob.press('ArrowLeft');
  expect(await turned()).toBe(dragged - 1);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(turned).toBe(0);

  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  const level = (kind: string) =>
    page.getByRole('toolbar', { name: kind }).locator('[data-lane-meter]').getAttribute('style');
  await goTo(page, '2');
  await page.keyboard.press('Space');
  await expect.poll(() => level('Voice')).toMatch(/scaleX\(0\.[1-9]/);
  expect(await level('Computer sound')).toMatch(/scaleX\(0\)/);
  await page.keyboard.press('Space');
  await expect.poll(() => level('Voice')).toMatch(/scaleX\(0\)/);
  const width = () =>
    page.getByRole('img', { name: 'The Picture at the playhead' }).evaluate((canvas) => {
      return (canvas as HTMLCanvasElement).width;
    });
  await expect.poll(width).toBe(1280);
  await page.getByLabel('Preview size').selectOption('1080 lines');
  await expect.poll(width).toBe(1920);
  await page.reload();
  await expect.poll(width).toBe(1920);
});

test('in a window of 640x400 everything can be scrolled to', async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 });
  await openDemo(page);
  for (const name of ['Export', 'Fit the timeline']) {
    const button = page.getByRole('button', { name, exact: true });
    await button.scrollIntoViewIfNeeded();
    await expect(button).toBeInViewport({ ratio: 1 });
  }
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  const start = page.getByRole('dialog').getByRole('button', { name: 'Start export' });
  await start.scrollIntoViewIfNeeded();
  await expect(start).toBeInViewport({ ratio: 1 });
});

test.describe('with a finger', () => {
  test.use({ hasTouch: true });

  test('things are selected, moved and trimmed, the rest pans, a touch that stays opens the menu', async ({
    page,
    context,
  }) => {
    await openDemo(page);
    const session = await context.newCDPSession(page);
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x?: number, y?: number) =>
      session.send('Input.dispatchTouchEvent', {
        type,
        touchPoints: x === undefined ? [] : [{ x, y: y! }],
      });
    const swipe = async (from: { x: number; y: number }, dx: number) => {
      await touch('touchStart', from.x, from.y);
      for (let i = 1; i <= 10; i++) await touch('touchMove', from.x + (dx * i) / 10, from.y);
      await touch('touchEnd');
    };
    const ruler = (await page.getByTestId('ruler').boundingBox())!;
    await swipe({ x: ruler.x + 20, y: ruler.y + 9 }, 300);
    await expect(page.getByLabel('Timecode')).not.toHaveValue('00:00:00:00');
    // The one that is selected: they change places when one is moved before another.
    const covers = page.locator('[data-span=callouts]');
    const cover = covers.and(page.locator('[aria-pressed=true]'));
    const box = async () => (await cover.boundingBox())!;
    const center = await middle(covers.last());
    await page.touchscreen.tap(center.x, center.y);
    await expect(cover).toHaveCount(1);
    const before = await box();
    await swipe(center, -100);
    await expect.poll(async () => before.x - (await box()).x).toBeGreaterThan(80);
    const moved = await box();
    await swipe({ x: moved.x + moved.width - 6, y: moved.y + moved.height / 2 }, -40);
    await expect.poll(async () => moved.width - (await box()).width).toBeGreaterThan(30);

    const voice = await middle(clips(page, 'voice').first());
    await touch('touchStart', voice.x, voice.y);
    await expect(page.getByRole('menuitem', { name: /^Trim the start/ })).toBeVisible();
    await touch('touchEnd');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');

    for (let i = 0; i < 3; i++) await page.keyboard.press('+');
    const lanes = page.getByTestId('timeline');
    await lanes.evaluate((element) => element.scrollTo({ left: 0 }));
    const screen = clips(page, 'screen');
    const { x, width } = (await screen.boundingBox())!;
    await swipe({ x: 900, y: (await middle(screen)).y }, -300);
    await expect.poll(() => lanes.evaluate((element) => element.scrollLeft)).toBeGreaterThan(200);
    const after = (await screen.boundingBox())!;
    expect(after.width).toBe(width);
    expect(after.x).toBeLessThan(x);
  });
});
