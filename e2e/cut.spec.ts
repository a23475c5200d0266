import { expect, test, type Page } from '@playwright/test';
import { projectDuration } from '../src/core/project/query';
import { ticksToSeconds } from '../src/core/time/ticks';
import { clips, command, drag, goTo, message, openDemo } from './edit';
import { newProject, openDocument, saved } from './recording';

async function range(page: Page, from: string, to: string): Promise<void> {
  await goTo(page, from);
  await page.keyboard.press('i');
  await goTo(page, to);
  await page.keyboard.press('o');
  await expect(page.getByRole('group', { name: 'Range' })).toBeVisible();
}

const lengthOf = async (page: Page, id: string) =>
  ticksToSeconds(projectDuration((await openDocument(page, id)).project));
const clipCount = async (page: Page, id: string) =>
  (await openDocument(page, id)).project.lanes.flatMap((l) => l.clips).length;

test('a user cuts the demo to under 50 s, with an opening, a freeze and a dissolve, and gets all of it back by undoing', async ({
  page,
}) => {
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  const id = await openDemo(page);
  const first = await openDocument(page, id);
  expect(ticksToSeconds(projectDuration(first.project))).toBeGreaterThan(75);

  // The reach for the stop button goes, and stretches in which nothing is said.
  await range(page, '70', '78.6');
  await page.keyboard.press('Shift+Delete');
  await range(page, '52', '60');
  await page.keyboard.press('Shift+Delete');
  await range(page, '35', '44');
  await page
    .getByRole('group', { name: 'Range' })
    .getByRole('button', { name: 'Ripple delete' })
    .click();
  await range(page, '12', '17');
  await page.keyboard.press('Shift+Delete');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('range')).toHaveCount(0);
  await expect(page.locator('[data-notch]').first()).toBeVisible();

  // The presenter has the whole picture for the hello.
  await range(page, '0', '6');
  await command(page, 'layout of the range presenter only');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');

  // A frame is held over what follows, while the voice goes on.
  await goTo(page, '20');
  await command(page, 'freeze frame');
  await page.getByRole('spinbutton', { name: 'Length' }).fill('1.5');
  await page.getByRole('button', { name: 'Freeze', exact: true }).click();
  await expect(page.locator('[data-clip][aria-label*=frozen]')).toHaveCount(1);

  // A dissolve at the first cut of the screen.
  await goTo(page, '12');
  await clips(page, 'screen')
    .nth(1)
    .click({ position: { x: 60, y: 25 } });
  await command(page, 'dissolve');
  await expect(page.locator('[data-transition=dissolve]')).toHaveCount(1);
  await saved(page);
  expect(await lengthOf(page, id)).toBeLessThan(50);
  const cut = (await openDocument(page, id)).project;
  expect(cut.layouts.some((l) => l.layout.name === 'Presenter only' && l.start === 0)).toBe(true);
  expect(
    cut.lanes.flatMap((l) => l.clips).filter((c) => c.transitionIn?.kind === 'dissolve'),
  ).toHaveLength(1);

  // Back by the list of edits, on again, and back by the keys.
  await page.getByRole('button', { name: 'Undo history' }).click();
  await page.getByRole('button', { name: /As it was opened first/ }).click();
  await page.keyboard.press('Escape');
  await expect(clips(page, 'screen')).toHaveCount(1);
  await saved(page);
  expect(JSON.stringify((await openDocument(page, id)).project)).toBe(
    JSON.stringify(first.project),
  );
  for (let i = 0; i < 7; i++) await page.keyboard.press('Control+Shift+z');
  await expect(page.locator('[data-transition=dissolve]')).toHaveCount(1);
  await saved(page);
  expect(JSON.stringify((await openDocument(page, id)).project)).toBe(JSON.stringify(cut));
  for (let i = 0; i < 7; i++) await page.keyboard.press('Control+z');
  await saved(page);
  expect(JSON.stringify((await openDocument(page, id)).project)).toBe(
    JSON.stringify(first.project),
  );
  expect(errors).toEqual([]);
});

test('a notch is pulled open and what was removed is back; a locked lane is left alone', async ({
  page,
}) => {
  const id = await openDemo(page);
  const before = await lengthOf(page, id);
  await page.getByRole('button', { name: 'Lock Music' }).click();
  await range(page, '20', '26');
  await page.keyboard.press('Shift+Delete');
  await saved(page);
  expect(await lengthOf(page, id)).toBeCloseTo(before, 1);
  expect(
    (await openDocument(page, id)).project.lanes.find((l) => l.kind === 'music')!.clips,
  ).toHaveLength(1);
  const notch = clips(page, 'screen').nth(1).locator('[data-notch]');
  await expect(notch).toHaveAttribute('title', /6\.0 s were taken out here/);
  await notch.click({ position: { x: 2, y: 2 } });
  await expect(page.locator('[data-notch]')).toHaveCount(0);
  await saved(page);
  const { project } = await openDocument(page, id);
  const screen = project.lanes.find((l) => l.kind === 'screen')!;
  expect(screen.clips[1]!.source).toBe(screen.clips[0]!.source + screen.clips[0]!.duration);
});

test('a stretch of screen is laid over the presenter, clips are chosen with a band, grouped, moved, and pasted into another project', async ({
  page,
}) => {
  const id = await openDemo(page);
  await range(page, '30', '33');
  for (const lane of ['Presenter', 'Voice', 'Music', 'Computer sound'])
    await page.getByLabel(`${lane} in the range`).uncheck();
  await page.keyboard.press('Control+c');
  await goTo(page, '2');
  await command(page, 'paste on a new lane in front');
  await expect(page.getByRole('button', { name: 'Solo Screen 2' })).toBeVisible();
  await saved(page);
  const { project } = await openDocument(page, id);
  expect(project.lanes[0]).toMatchObject({ kind: 'screen', name: 'Screen 2' });
  expect(ticksToSeconds(project.lanes[0]!.clips[0]!.start)).toBe(2);
  expect(ticksToSeconds(project.lanes[0]!.clips[0]!.duration)).toBe(3);
  await page.keyboard.press('Escape');

  // A rubber band over the first presenter clips and their voices.
  const row = (await page.locator('[data-lane=presenter]').boundingBox())!;
  const voice = (await page.locator('[data-lane=voice]').boundingBox())!;
  const callouts = (await page.locator('[data-list=callouts]').boundingBox())!;
  await page.mouse.move(row.x + 2, callouts.y + 10);
  await page.mouse.down();
  await page.mouse.move(row.x + 200, voice.y + 10, { steps: 5 });
  await expect(page.getByTestId('rubber-band')).toBeVisible();
  await page.mouse.up();
  await expect(clips(page, 'presenter').first()).toHaveAttribute('aria-pressed', 'true');
  await expect(clips(page, 'voice').first()).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Control+g');
  await expect(page.locator('[data-block=group]').first()).toContainText('Group 1');
  await page.locator('[data-block=group]').first().dblclick();
  await expect(page.locator('[data-block=group]')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-block=group]').first()).toBeVisible();
  await saved(page);

  await page.locator('[data-block=group]').first().click();
  await page.keyboard.press('Control+Shift+g');
  await expect(page.locator('[data-block=group]')).toHaveCount(0);
  // Copied here, pasted there: the recordings come along, once.
  await clips(page, 'screen')
    .last()
    .click({ position: { x: 300, y: 20 } });
  await page.keyboard.press('Control+c');
  const other = await newProject(page, 'Another tutorial');
  await page.goto(`/projects/${other}/edit`);
  await expect(page.getByText('Nothing on the timeline yet')).toBeVisible();
  await page.keyboard.press('Control+v');
  await expect(clips(page, 'screen')).toHaveCount(1, { timeout: 20_000 });
  await expect(clips(page, 'screen')).toHaveAttribute('aria-label', /kilnbook-screen.mp4/);
  await page.keyboard.press('Control+v');
  await expect(clips(page, 'screen')).toHaveCount(2);
  const footage = (await (
    await page.request.get(`/api/projects/${other}/footage`)
  ).json()) as unknown[];
  expect(footage).toHaveLength(1);
  // Deleted there, it is brought back by pasting again, with a word.
  await page.getByRole('tab', { name: 'Footage' }).click();
  await page.getByRole('button', { name: 'Delete kilnbook-screen.mp4 from Footage' }).click();
  await page.getByRole('button', { name: 'Delete and lift its clips' }).click();
  await expect(clips(page, 'screen')).toHaveCount(0);
  await page.keyboard.press('Control+v');
  await expect(message(page, 'had been deleted from Footage and was brought back')).toBeVisible();
  await expect(clips(page, 'screen')).toHaveCount(1);
});

test('trims by keys, numbers and frames, speed, levels and lanes; refusals are sentences and change nothing', async ({
  page,
}) => {
  const id = await openDemo(page);
  const voice = () =>
    openDocument(page, id).then((d) => d.project.lanes.find((l) => l.kind === 'voice')!.clips);
  await clips(page, 'voice')
    .first()
    .click({ position: { x: 60, y: 20 } });
  await goTo(page, '3');
  await page.keyboard.press('[');
  await page.getByRole('button', { name: 'End one frame earlier' }).click();
  await page.getByRole('button', { name: 'End one frame earlier' }).click();
  await saved(page);
  const trimmed = (await voice())[0]!;
  expect(ticksToSeconds(trimmed.start)).toBe(3);
  const length = trimmed.duration;
  await page.getByRole('textbox', { name: 'Length' }).fill('5');
  await page.getByRole('textbox', { name: 'Length' }).press('Enter');
  await expect(page.getByRole('textbox', { name: 'Length' })).toHaveValue('00:00:05:00');
  await page.getByRole('button', { name: 'Unlink' }).click();
  await page.getByRole('button', { name: '2×', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Length' })).toHaveValue('00:00:02:15');
  await page.getByRole('spinbutton', { name: 'Fade in' }).fill('0.5');
  await page.getByRole('spinbutton', { name: 'Fade in' }).press('Enter');
  await goTo(page, '4');
  await page.getByRole('button', { name: 'Level point at the playhead' }).click();
  await expect(page.locator('[data-level-point]')).toHaveCount(1);
  await saved(page);
  expect((await voice())[0]).toMatchObject({ speed: 2, envelope: [[expect.any(Number), 0]] });
  expect(length).toBeGreaterThan(0);

  // A split on a boundary, a speed at which nothing would be left, a locked lane.
  const count = await clipCount(page, id);
  await goTo(page, '3');
  await page.keyboard.press('b');
  await expect(message(page, 'There is already a cut here')).toBeVisible();
  await page.getByRole('button', { name: 'Lock Voice' }).click();
  await page.keyboard.press('Delete');
  await expect(message(page, 'The lane Voice is locked. Unlock it first.')).toBeVisible();
  await saved(page);
  expect(await clipCount(page, id)).toBe(count);

  // Lanes: a second screen, moved to the front, made high; markers with a colour.
  await page.getByRole('button', { name: 'Add a lane' }).click();
  await page.getByRole('menuitem', { name: 'Screen' }).click();
  await page.getByRole('button', { name: 'Screen 2', exact: true }).click();
  await page.getByRole('button', { name: 'To the front' }).click();
  await saved(page);
  expect((await openDocument(page, id)).project.lanes.map((l) => l.name).slice(0, 2)).toEqual([
    'Screen 2',
    'Presenter',
  ]);
  await page.getByRole('button', { name: 'Remove the lane' }).click();
  await page.keyboard.press('Escape');
  await goTo(page, '9');
  await page.keyboard.press('m');
  await page.getByRole('button', { name: 'Colour #3d6785' }).click();
  await page.keyboard.press('Escape');
  await goTo(page, '0');
  await page.keyboard.press('Shift+PageDown');
  await expect(page.getByLabel('Timecode')).toHaveValue('00:00:09:00');
});

test('words of a range are recorded again while the Picture plays, and the old ones are kept', async ({
  page,
}) => {
  const id = await openDemo(page);
  await range(page, '3', '5');
  await page.getByRole('group', { name: 'Range' }).getByRole('button', { name: 'Retake' }).click();
  const dialog = page.getByRole('dialog', { name: 'Retake' });
  await expect(dialog).toContainText('Hello, I am Ilse Varga');
  await dialog.getByLabel('Microphone').selectOption('practice');
  await dialog.getByRole('button', { name: 'Record the words' }).click();
  await expect(dialog.getByRole('status')).toContainText('Get ready');
  await expect(dialog.getByRole('status')).toContainText('Speak now', { timeout: 30_000 });
  await expect(dialog).toHaveCount(0, { timeout: 60_000 });
  await saved(page);
  const { project } = await openDocument(page, id);
  const [voice, old] = project.lanes.filter((l) => l.kind === 'voice');
  expect(
    voice!.clips.map((c) => [ticksToSeconds(c.start), ticksToSeconds(c.duration)]).slice(0, 2),
  ).toEqual([
    [0, 3],
    [3, 2],
  ]);
  expect(voice!.clips[1]!.footageId).not.toBe(voice!.clips[0]!.footageId);
  expect(old).toMatchObject({ name: 'Old words', off: true });
  expect(ticksToSeconds(old!.clips[0]!.start)).toBe(3);
  expect(old!.clips[0]!.footageId).toBe(voice!.clips[0]!.footageId);
  // The lead before the range was recorded too, so the words come from behind it.
  expect(ticksToSeconds(voice!.clips[1]!.source)).toBeGreaterThan(1);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Solo Old words' })).toHaveCount(0);
});

test('with the pointer: ripple trim, roll, slip, slide, reorder and height of lanes', async ({
  page,
}) => {
  const id = await openDemo(page);
  const lanes = () => openDocument(page, id).then((d) => d.project.lanes);
  const screen = () => lanes().then((all) => all.find((l) => l.kind === 'screen')!.clips);
  const edge = async (n: number, side: 'start' | 'end') => {
    const box = (await clips(page, 'screen').nth(n).locator(`[data-trim=${side}]`).boundingBox())!;
    return { x: box.x + 3, y: box.y + 26 };
  };
  const body = async (n: number) => {
    const box = (await clips(page, 'screen').nth(n).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + 26 };
  };
  await page.getByRole('button', { name: 'Snapping' }).click();
  await goTo(page, '30');
  await page.keyboard.press('b');
  await goTo(page, '50');
  await page.keyboard.press('b');
  await expect(clips(page, 'screen')).toHaveCount(3);
  await saved(page);
  const before = await screen();

  await drag(page, await edge(1, 'end'), -80, 0, 'Shift');
  await saved(page);
  const trimmed = await screen();
  const gone = before[1]!.duration - trimmed[1]!.duration;
  expect(ticksToSeconds(gone)).toBeGreaterThan(4);
  expect(trimmed[2]!.start).toBe(before[2]!.start - gone);

  await drag(page, await edge(1, 'start'), 50, 0, 'Control');
  await saved(page);
  const rolled = await screen();
  const by = rolled[1]!.start - trimmed[1]!.start;
  expect(by).toBeGreaterThan(0);
  expect(rolled[0]!.duration).toBe(trimmed[0]!.duration + by);
  expect(rolled[2]!.start).toBe(trimmed[2]!.start);

  await drag(page, await body(1), -40, 0, 'Control');
  await saved(page);
  const slipped = await screen();
  expect(slipped[1]!.source).toBeGreaterThan(rolled[1]!.source);
  expect([slipped[1]!.start, slipped[1]!.duration]).toEqual([
    rolled[1]!.start,
    rolled[1]!.duration,
  ]);

  await drag(page, await body(1), 30, 0, 'Shift');
  await saved(page);
  const slid = await screen();
  expect(slid[1]!.start).toBeGreaterThan(slipped[1]!.start);
  expect(slid[1]!.source).toBe(slipped[1]!.source);
  expect(slid[0]!.start + slid[0]!.duration).toBe(slid[1]!.start);

  const name = (await page.getByRole('button', { name: 'Screen', exact: true }).boundingBox())!;
  await drag(page, { x: name.x + 10, y: name.y + 8 }, 0, -38);
  await saved(page);
  expect((await lanes()).map((l) => l.kind).slice(0, 2)).toEqual(['screen', 'presenter']);
  const grip = (await page.locator('[data-resize=voice]').boundingBox())!;
  await drag(page, { x: grip.x + 30, y: grip.y + 3 }, 0, 40);
  await saved(page);
  expect((await lanes()).find((l) => l.kind === 'voice')!.height).toBeGreaterThan(1.8);
});
