import { expect, test, type Page } from '@playwright/test';
import { TICKS_PER_SECOND } from '../src/core/time/ticks';
import { command, drag, goTo, message, middle, openDemo } from './edit';
import { openDocument, saved } from './recording';

/** Adds a shape at the playhead by the menu; it is selected then. */
async function addShape(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('menuitem', { name, exact: true }).click();
  await expect(page.getByRole('heading', { name, exact: true })).toBeVisible();
}

test('shapes are made from a menu, where the pointer is, moved by keys, and taken back', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '35');
  const callouts = async () => {
    await saved(page);
    return (await openDocument(page, id)).project.callouts;
  };
  const before = await callouts();
  const names = ['Arrow', 'Line', 'Box', 'Ellipse', 'Speech note', 'Marker pen', 'Dim outside'];
  for (const name of [...names, 'Lens', 'Keycaps', 'Count', 'Link area']) {
    await addShape(page, name);
    if (name === 'Speech note') await page.getByLabel('Text', { exact: true }).blur();
    if (name === 'Keycaps') await page.getByLabel('Keys', { exact: true }).blur();
    const handle = page.locator('[data-handle]').first();
    const from = (await handle.boundingBox())!;
    await handle.press('Shift+ArrowRight');
    await expect.poll(async () => (await handle.boundingBox())!.x).toBeGreaterThan(from.x + 2);
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await handle.boundingBox())!.x).toBeCloseTo(from.x, 0);
  }
  const made = (await callouts()).filter((c) => !before.some((b) => b.id === c.id));
  expect(made.map(({ kind }) => kind)).toEqual([
    ...['arrow', 'line', 'box', 'ellipse', 'note', 'highlight', 'spotlight', 'lens', 'keycaps'],
    ...['count', 'link'],
  ]);
  for (let i = 0; i < made.length; i++) await page.keyboard.press('Control+z');
  expect(await callouts()).toEqual(before);
});

test('a link area leads to an address or a step, and nowhere else', async ({ page }) => {
  const id = await openDemo(page);
  await goTo(page, '35');
  await addShape(page, 'Link area');
  await expect(page.getByText(/Until then it is no link/)).toBeVisible();
  for (const [name, value] of [
    ['Left', '300'],
    ['Top', '200'],
    ['Width', '240'],
  ] as const) {
    const field = page.getByLabel(name, { exact: true });
    await field.fill(value);
    await field.press('Enter');
    await expect(field).toHaveValue(value);
  }
  const area = (await page.getByTestId('callout-area').boundingBox())!;
  const picture = (await page.getByTestId('picture').boundingBox())!;
  expect((area.x - picture.x) / picture.width).toBeCloseTo(300 / 1920, 2);
  expect(area.width / picture.width).toBeCloseTo(240 / 1920, 2);
  await page.getByLabel('Leads to').selectOption('An address');
  const address = page.getByLabel('Address', { exact: true });
  await address.fill('javascript:alert(1)');
  await address.press('Enter');
  await expect(message(page, /no address that can be opened/)).toBeVisible();
  await address.fill('kilnbook.example/help');
  await address.press('Enter');
  const opens = page.getByRole('link', { name: 'Open it' });
  await expect(opens).toHaveAttribute('href', 'https://kilnbook.example/help');
  const target = async () => {
    await saved(page);
    const { callouts } = (await openDocument(page, id)).project;
    const link = callouts.find(({ kind }) => kind === 'link');
    return link?.kind === 'link' ? link.target : undefined;
  };
  expect(await target()).toEqual({ address: 'https://kilnbook.example/help' });
  await page.getByLabel('Leads to').selectOption('2. Open a new firing');
  await page.getByRole('button', { name: 'Go there' }).click();
  await expect(page.getByLabel('Timecode')).toHaveValue(/^00:00:0?9|^00:00:10/);
  expect(await target()).toHaveProperty('stepId');
  await page.keyboard.press('Control+z');
  await expect(opens).toBeVisible();
});

test('what is dragged rests on lines that are near, unless Alt is held', async ({ page }) => {
  await openDemo(page);
  await goTo(page, '35');
  await addShape(page, 'Count');
  // On the frame, so that it is known where it should rest.
  const handle = page.getByTestId('callout-at');
  const picture = (await page.getByTestId('picture').boundingBox())!;
  const dragTo = async (x: number, y: number, key?: 'Alt') => {
    const from = await middle(handle);
    await drag(page, from, picture.x + x - from.x, picture.y + y - from.y, key);
    const at = await middle(handle);
    return { x: at.x - picture.x, y: at.y - picture.y };
  };
  // Far from all text of the page there is only the frame's third.
  const third = { x: picture.width / 3, y: picture.height - 14 };
  const near = { x: third.x + 4, y: third.y };
  expect((await dragTo(near.x, near.y)).x).toBeCloseTo(third.x, 0);
  expect((await dragTo(near.x, near.y, 'Alt')).x).toBeCloseTo(near.x, 0);
  // It is selected again by a press on it.
  await saved(page);
  await page.keyboard.press('Escape');
  await expect(handle).toHaveCount(0);
  await page.mouse.click(picture.x + near.x + 5, picture.y + near.y);
  await expect(page.getByRole('heading', { name: 'Count', exact: true })).toBeVisible();
});

test('how an arrow comes and goes is set, and its bend is dragged on the Picture', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '35');
  await addShape(page, 'Arrow');
  await page.getByLabel('Way', { exact: true }).selectOption('Curved');
  await page.getByLabel('Heads').selectOption('At both ends');
  await page.getByLabel('Comes').selectOption('Rises');
  await page.getByLabel('Goes').selectOption('Is taken back');
  const arrow = async () => {
    await saved(page);
    return (await openDocument(page, id)).project.callouts.find((c) => c.kind === 'arrow')!;
  };
  expect(await arrow()).toMatchObject({
    ...{ course: 'curved', heads: 'both', entrance: 'rise', exit: 'draw', bend: 0.2 },
  });
  await drag(page, await middle(page.getByTestId('callout-bend')), 0, 30);
  await expect(page.getByRole('textbox', { name: 'Bend, number' })).not.toHaveValue('20');
  await page.keyboard.press('Control+z');
  expect(await arrow()).toMatchObject({ bend: 0.2 });
  // Its time: up to the playhead, and as long as what is told there.
  await goTo(page, '36');
  await page.getByRole('button', { name: 'End here' }).click();
  expect((await arrow()).end).toBe(36 * TICKS_PER_SECOND);
  await page.getByRole('button', { name: 'As long as its step' }).click();
  const { steps } = (await openDocument(page, id)).project;
  const { start, end } = await arrow();
  const next = steps.findIndex((step) => step.start === start) + 1;
  expect(next).toBeGreaterThan(0);
  expect(end).toBe(steps[next]!.start);
});

test('lines are drawn on the Picture with the pen, and appear one after the other', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '35');
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Draw with the pen' }).click();
  await expect(page.getByText('Escape puts the pen away')).toBeVisible();
  const sheet = (await page.getByTestId('pen-draw').boundingBox())!;
  await drag(page, { x: sheet.x + 200, y: sheet.y + 200 }, 120, 40);
  await drag(page, { x: sheet.x + 200, y: sheet.y + 300 }, 90, 0);
  // Both are seen until the pen is put away, though the playhead is at their beginning.
  await expect(page.getByTestId('pen-draw').locator('polyline')).toHaveCount(2);
  // A slip of the hand is no line.
  await page.mouse.click(sheet.x + 100, sheet.y + 100);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('pen-draw')).toHaveCount(0);
  await saved(page);
  const lines = async () =>
    (await openDocument(page, id)).project.callouts.filter((c) => c.kind === 'stroke');
  const [first, second, ...more] = await lines();
  expect(more).toEqual([]);
  expect(first).toMatchObject({ tool: 'pen', start: 35 * TICKS_PER_SECOND });
  const drawnMs = first!.points.at(-1)![0];
  expect(drawnMs).toBeGreaterThan(0);
  expect(second!.start).toBe(first!.start + Math.round((drawnMs / 1000) * TICKS_PER_SECOND));
  await page.keyboard.press('Control+z');
  await saved(page);
  expect(await lines()).toHaveLength(1);
});

test('the style of one callout is taken over to others, by the clipboard and by a name', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '35');
  const add = (name: string) => addShape(page, name);
  const made = async (kind: string) => {
    await saved(page);
    return (await openDocument(page, id)).project.callouts.find((c) => c.kind === kind)!;
  };
  await add('Arrow');
  await page.getByRole('textbox', { name: 'Width, number' }).fill('33');
  await page.keyboard.press('Enter');
  await page.getByLabel('Goes').selectOption('Sinks');
  await command(page, 'Copy style');
  await expect(message(page, /^The style was copied/)).toBeVisible();
  // From a field, too.
  const name = page.getByLabel('Name of this style');
  await name.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Commands' })).toBeVisible();
  await page.keyboard.press('Escape');
  await name.fill('Broad');
  await page.getByRole('button', { name: 'Save style', exact: true }).click();
  const style = page.getByRole('list', { name: 'Saved styles' }).getByText('Broad');
  await expect(style).toBeVisible();

  await add('Box');
  await command(page, 'Paste style');
  expect(await made('box')).toMatchObject({ width: 33, exit: 'rise', entrance: 'draw' });
  await page.keyboard.press('Control+z');
  expect(await made('box')).toMatchObject({ exit: 'fade', entrance: 'fade' });
  await add('Ellipse');
  await style.click();
  expect(await made('ellipse')).toMatchObject({ width: 33, exit: 'rise' });
  await page.getByRole('button', { name: 'Delete Broad' }).click();
  await expect(style).toHaveCount(0);
});
