import { expect, test, type Page } from '@playwright/test';
import { command, drag, goTo, message, middle, openDemo } from './edit';
import { openDocument, saved } from './recording';

const framings = async (page: Page, id: string) => {
  await saved(page);
  return (await openDocument(page, id)).project.framings;
};
const details = (page: Page) => page.getByRole('tabpanel', { name: 'Details' });

test('a framing is drawn on the Picture, changed on the graph, copied, and taken back', async ({
  page,
}) => {
  const id = await openDemo(page);
  const before = await framings(page, id);
  await goTo(page, '12');
  await page.keyboard.press('Shift+F');
  const sheet = page.getByTestId('framing-draw');
  const box = (await sheet.boundingBox())!;
  await drag(page, { x: box.x + 200, y: box.y + 100 }, 220, 100);
  await expect(page.getByTestId('framing-rect')).toBeVisible();
  let all = await framings(page, id);
  expect(all).toHaveLength(before.length + 1);
  const drawn = all.find((f) => !before.some((b) => b.id === f.id))!;
  const scale = 2560 / box.width;
  // All that was drawn is in view, which has the picture's shape.
  expect(drawn.rect.x).toBeLessThanOrEqual(200 * scale + 3);
  expect(drawn.rect.x + drawn.rect.width).toBeGreaterThanOrEqual(420 * scale - 3);
  expect(drawn.rect.width / drawn.rect.height).toBeCloseTo(16 / 9, 2);
  expect(drawn).toMatchObject({ pinned: true, endRect: null });
  const now = async () => (await framings(page, id)).find((f) => f.id === drawn.id)!;

  // The line of the graph is its magnification, the corners are its ramps.
  await drag(page, await middle(page.getByTestId('grip-magnification')), 0, 8);
  const wider = await now();
  expect(wider.rect.width).toBeGreaterThan(drawn.rect.width);
  await drag(page, await middle(page.getByTestId('grip-rampIn')), -10, 0);
  expect((await now()).rampIn).toBeLessThan(wider.rampIn);
  await page.getByTestId('grip-magnification').focus();
  await page.keyboard.press('ArrowUp');
  expect((await now()).rect.width).toBeLessThan(wider.rect.width);
  // The arrows move the view, and not the playhead.
  const timecode = await page.getByLabel('Timecode').inputValue();
  const x = (await now()).rect.x;
  await page.getByTestId('framing-rect').focus();
  await page.keyboard.press('ArrowRight');
  expect((await now()).rect.x).toBeGreaterThan(x);
  expect(await page.getByLabel('Timecode').inputValue()).toBe(timecode);

  await page.getByLabel('Slow push').check();
  await expect(page.getByTestId('framing-end')).toBeVisible();
  const pushed = await now();
  expect(pushed.endRect!.width).toBeLessThan(pushed.rect.width);

  // What is seen is turned by number, by the knob, and by the arrows at it.
  const turnTo = async (degrees: number) => {
    await page.getByLabel('Turn, number').fill(String(degrees));
    await page.getByLabel('Turn, number').blur();
    await expect.poll(async () => (await now()).turn).toBe(degrees);
  };
  // The view comes closer for as long as it has to.
  await page.getByLabel('Magnification, number').fill('1.2');
  await page.getByLabel('Magnification, number').blur();
  const wide = await now();
  await turnTo(40);
  expect((await now()).rect.width).toBeLessThan(wide.rect.width);
  await turnTo(0);
  expect((await now()).rect).toEqual(wide.rect);
  await turnTo(10);
  const knob = page.getByTestId('framing-turn');
  const view = await middle(page.getByTestId('framing-end'));
  const { x: left, y: top } = await middle(knob);
  await drag(page, { x: left, y: top }, view.x - left, -2);
  await expect.poll(async () => (await now()).turn).toBe(0);
  await knob.focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(async () => (await now()).turn).toBe(-1);
  await expect(async () => {
    await page.keyboard.press('Control+z');
    expect(await now()).toEqual(pushed);
  }).toPass();

  await page.keyboard.press('Control+c');
  await expect(message(page, /^Copied/)).toBeVisible();
  await goTo(page, '60');
  await page.keyboard.press('Control+v');
  all = await framings(page, id);
  const pasted = all.find((f) => f.rect.x === pushed.rect.x && f.id !== drawn.id)!;
  expect(pasted.endRect).toEqual(pushed.endRect);
  expect(pasted.end - pasted.start).toBe(pushed.end - pushed.start);

  await page.keyboard.press('Escape');
  await goTo(page, '62');
  await command(page, 'whole screen here');
  const ended = (await framings(page, id)).find((f) => f.id === pasted.id)!;
  expect(ended.end).toBeLessThan(pasted.end);
  // Where the whole is shown already, that is said.
  await goTo(page, '5');
  await command(page, 'whole screen here');
  await expect(message(page, /shown here already/)).toBeVisible();
  for (let i = 0; i < 12; i++) await page.keyboard.press('Control+z');
  expect(await framings(page, id)).toEqual(before);
});

test('Why says what a framing is for, goes there, and offers the next best view', async ({
  page,
}) => {
  const id = await openDemo(page);
  await page
    .locator('[data-span=framings]')
    .first()
    .click({ position: { x: 20, y: 40 } });
  const why = page.getByRole('region', { name: 'Why' });
  await expect(why.getByTestId('side-view')).toBeVisible();
  const press = why.getByRole('button', { name: /^Press/ }).first();
  await press.click();
  const goes = (await press.getAttribute('title'))!.replace('Go to ', '');
  await expect(page.getByLabel('Timecode')).toHaveValue(goes);
  const before = (await framings(page, id))[0]!;
  await why.getByRole('button', { name: /^Next best/ }).click();
  const after = (await framings(page, id))[0]!;
  expect(after.rect).not.toEqual(before.rect);
  expect(after.pinned).toBe(true);
  // A view that leaves out what is done in it says so.
  await details(page).getByRole('slider', { name: 'Magnification' }).fill('4');
  await expect(why.getByText(/Left out/)).toBeVisible();
});

test('looks of the pointer are switched on, faded, saved and used again; spans lie over one another', async ({
  page,
}) => {
  const id = await openDemo(page);
  const spans = async () => {
    await saved(page);
    return (await openDocument(page, id)).project.pointer;
  };
  await goTo(page, '20');
  await command(page, 'pointer looks here');
  const look = (name: string) => details(page).getByRole('checkbox', { name, exact: true });
  await expect(look('Ring at presses')).toBeChecked();
  for (const name of ['Steady', 'Size', 'Trail', 'Keycaps', 'Tick', 'Rest', 'Lens'])
    await look(name).check();
  await details(page).getByRole('slider', { name: 'Fade in' }).fill('0.5');
  await page.getByLabel('Name of this look').fill('Workshop');
  await page.getByRole('button', { name: 'Save look', exact: true }).click();
  const [first, second] = await spans();
  expect(first!.end).toBeGreaterThan(second!.start);
  expect(second!.looks.map(({ kind }) => kind)).toEqual([
    ...['ring', 'steady', 'size', 'trail', 'keycaps', 'tick', 'rest', 'lens'],
  ]);
  expect(second!.fadeIn).toBe(352_800_000);
  // Neither hides the other on the timeline.
  const boxes = await Promise.all(
    [0, 1].map((i) => page.locator('[data-span=pointer]').nth(i).boundingBox()),
  );
  expect(boxes[1]!.y).toBeGreaterThanOrEqual(boxes[0]!.y + boxes[0]!.height);
  await page
    .locator('[data-span=pointer]')
    .first()
    .click({ position: { x: 30, y: 6 } });
  await expect(look('Trail')).not.toBeChecked();
  await details(page).getByRole('button', { name: 'Workshop', exact: true }).click();
  await expect(look('Trail')).toBeChecked();
  expect((await spans())[0]!.looks).toEqual(second!.looks);
});

test('the pointer’s path is mended on the Picture, kept apart from what was found, and taken back', async ({
  page,
}) => {
  const id = await openDemo(page);
  const made = async () => {
    await saved(page);
    return (await openDocument(page, id)).project.corrections[0]?.made ?? [];
  };
  await goTo(page, '20');
  await page.getByRole('tab', { name: 'Footage' }).click();
  await page
    .getByRole('button', { name: /^kilnbook-screen/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Mend the pointer’s path' }).click();
  const now = page.getByTestId('path-now');
  const was = await middle(now);
  await drag(page, was, 40, -30);
  const is = await middle(now);
  expect(is.x - was.x).toBeCloseTo(40, 0);
  expect(is.y - was.y).toBeCloseTo(-30, 0);
  expect(await made()).toMatchObject([{ kind: 'shift' }]);

  await page.getByRole('button', { name: 'Draw the path' }).click();
  const sheet = (await page.getByTestId('path-handles').boundingBox())!;
  await drag(page, { x: sheet.x + 60, y: sheet.y + 60 }, 200, 120);
  expect(await made()).toMatchObject([{ kind: 'shift' }, { kind: 'path' }]);
  const drawn = await middle(now);
  expect(drawn.x).toBeCloseTo(sheet.x + 60, 0);
  await page.getByRole('button', { name: 'A press here' }).click();
  await expect(page.getByRole('button', { name: 'No press here' })).toBeVisible();
  await page.getByRole('button', { name: 'Hidden in this stretch' }).click();
  await expect(details(page).getByText('The pointer is hidden here.')).toBeVisible();
  await page.getByRole('button', { name: 'As it was found' }).click();
  expect(await made()).toEqual([]);
  const back = await middle(now);
  expect(back.x).toBeCloseTo(was.x, 0);
});
