import { expect, test } from '@playwright/test';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { message } from './edit';
import { clicks, flashes } from '../scripts/slate.mjs';
import type { Project } from '../src/core/project/model';
import {
  dataFolder,
  keep,
  newProject,
  noCountdown,
  openDocument,
  record,
  saved,
  takesOf,
} from './recording';
import { TICKS_PER_SECOND } from '../src/core/time/ticks';

const SCRIPT = `Hello, I am Ilse Varga, studio technician at Saltmarsh Clay.

2. A new firing
Open the Firings menu and choose New firing.
Screen: the menu, then New firing

3. Its name
Give it a name that tells the others what is inside.
[The form, name typed]

4. The notes
Read the glaze notes before you load.

5. The end
That is all. Happy firing!`;

test('from a pasted script to takes of five steps, one done again, one rescued, all in place in Edit', async ({
  page,
  context,
}) => {
  test.setTimeout(420_000);
  await noCountdown(page);
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  const id = await newProject(page, 'Five steps');
  await page.getByRole('button', { name: 'Paste a script' }).first().click();
  await page.getByLabel('Script', { exact: true }).fill(SCRIPT);
  await page.getByRole('button', { name: 'Make 5 steps' }).click();
  await expect(page.getByLabel('Title of step 3')).toHaveValue('Its name');
  await expect(page.getByLabel('On screen in step 3')).toHaveValue('The form, name typed');
  await saved(page);

  await page.getByRole('link', { name: 'Record' }).click();
  await page.getByRole('button', { name: 'Try it with practice devices' }).click();
  for (const name of ['Screen', 'Camera', 'Microphone'])
    await expect(page.getByLabel(`${name} state`)).toContainText('ready');
  // The camera is not needed for a voice; without it the machine has more room.
  await page.getByLabel('Camera', { exact: true }).selectOption('off');

  // The voice of each step, one after the other.
  await page.getByRole('radio', { name: 'Voice' }).click();
  for (let i = 1; i <= 5; i++) {
    await expect(page.getByTestId('prompter')).toContainText(`Step ${i} of 5`);
    await record(page, () => page.waitForTimeout(1500));
    await keep(page);
  }
  // Then the screen of each step, while its voice is heard.
  await page.getByRole('radio', { name: 'Screen' }).click();
  await page.getByRole('button', { name: /^1 Hello/ }).click();
  const stage = (await page.getByTestId('live-overlay').boundingBox())!;
  const spot = (x: number, y: number): [number, number] => [
    stage.x + (stage.width * x) / 2560,
    stage.y + (stage.height * y) / 1440,
  ];
  for (let i = 1; i <= 5; i++) {
    await expect(page.getByTestId('prompter')).toContainText(`Step ${i} of 5`);
    await record(page, async () => {
      await page.mouse.move(...spot(700, 300), { steps: 4 });
      await page.mouse.click(...spot(150, 270 + 80 * (i % 4)));
      await page.waitForTimeout(1800);
    });
    await keep(page);
  }
  await saved(page);
  const before = (await openDocument(page, id)).project;
  expect(before.steps.map((s) => s.start !== null)).toEqual([true, true, true, true, true]);

  // Step 3 again, and longer: what follows makes room, the old take stays in the drawer.
  await page.getByRole('button', { name: /^3 Its name/ }).click();
  await record(page, () => page.waitForTimeout(6000));
  await keep(page);
  await page.getByRole('button', { name: /^3 Its name/ }).click();
  await expect(
    page.getByRole('region', { name: 'Takes' }).getByText('in use', { exact: true }),
  ).toHaveCount(2);
  await expect(
    page.getByRole('region', { name: 'Takes' }).getByText('kept, not in use'),
  ).toHaveCount(1);
  await saved(page);
  const after = (await openDocument(page, id)).project;
  const start = (project: Project, index: number) => project.steps[index]!.start!;
  expect(start(after, 2)).toBe(start(before, 2));
  expect(start(after, 3)).toBeGreaterThan(start(before, 3) + TICKS_PER_SECOND);
  // Undone, and done again.
  await page.keyboard.press('Control+z');
  await saved(page);
  expect((await openDocument(page, id)).project.lanes).toEqual(before.lanes);
  await page.keyboard.press('Control+Shift+Z');
  await saved(page);

  // The tab dies in the middle of a take with everything on; on return the take is offered.
  await page.getByLabel('Camera', { exact: true }).selectOption('practice');
  await expect(page.getByLabel('Camera state')).toContainText('ready');
  await page.getByRole('radio', { name: 'All at once' }).click();
  await page.getByRole('button', { name: /^5 The end/ }).click();
  await page.getByRole('button', { name: 'Take', exact: true }).click();
  await page.keyboard.press('Alt+Enter');
  await expect(page.getByTestId('elapsed')).toBeVisible();
  await page.waitForTimeout(1500);
  // More than once: a browser whose own sound stumbles may swallow a click, and a camera's picture
  // may come late.
  for (let i = 0; i < 5; i++) {
    await page.getByRole('button', { name: 'Flash and click' }).click();
    await page.waitForTimeout(1200);
  }
  const elapsed = Number((await page.getByTestId('elapsed').textContent())!.split(':')[1]);
  const session = await context.newCDPSession(page);
  void session.send('Page.crash').catch(() => undefined);
  await new Promise((resolve) => setTimeout(resolve, 1000));
  const again = await context.newPage();
  await again.goto(`/projects/${id}/record`);
  await again.getByRole('button', { name: 'Rescue it' }).click({ timeout: 30_000 });
  await expect(again.getByRole('region', { name: 'Review' })).toContainText('rescued', {
    timeout: 40_000,
  });
  const rescued = (await takesOf(again, id)).at(-1)!;
  expect(rescued.reason).toBe('crashed');
  expect(rescued.seconds).toBeGreaterThan(elapsed - 2);
  await keep(again);
  await saved(again);

  // Everything stands in Edit: linked where it was recorded together, picture and sound of one
  // instant at one place.
  await again.getByRole('link', { name: 'Edit' }).click();
  await expect(again.locator('[data-clip][data-lane-kind=screen]')).toHaveCount(5);
  await expect(again.locator('[data-clip][data-lane-kind=voice]')).toHaveCount(5);
  const { project } = await openDocument(again, id);
  const last = project.steps[4]!;
  const at = project.lanes.flatMap((lane) =>
    lane.clips.filter((c) => c.start === last.start).map((clip) => ({ kind: lane.kind, clip })),
  );
  expect(at.map((f) => f.kind).sort()).toEqual(['presenter', 'screen', 'voice']);
  expect(new Set(at.map((f) => f.clip.link)).size).toBe(1);
  const file = (name: string) => join(dataFolder(), 'takes', rescued.id, `finished-${name}`);
  expect(existsSync(file('voice.wav'))).toBe(true);
  // On the timeline, where each is first seen or heard at once.
  const source = (kind: string) => at.find((f) => f.kind === kind)!.clip.source / TICKS_PER_SECOND;
  const heard = clicks(file('voice.wav')).map((t) => t - source('voice'));
  const nearest = (seen: number[]) =>
    Math.min(...seen.flatMap((t) => heard.map((h) => Math.abs(t - h))));
  expect(nearest(flashes(file('screen.mp4')).map((t) => t - source('screen')))).toBeLessThan(0.1);
  expect(nearest(flashes(file('camera.mp4')).map((t) => t - source('presenter')))).toBeLessThan(
    0.1,
  );
  // What the practice screen told of the pointer is there as a track.
  const screens = project.lanes.find((l) => l.kind === 'screen')!.clips;
  const track = (await (
    await again.request.get(`/api/footage/${screens[1]!.footageId}/pointer`)
  ).json()) as {
    inPicture: boolean;
    samples: number[][];
    events: { type: string }[];
  };
  expect(track.inPicture).toBe(false);
  expect(track.events.map((e) => e.type)).toEqual(expect.arrayContaining(['down', 'up']));
  expect(errors).toEqual([]);
});

test('live drawings, marks, a closer view and a layout land in the project as data; a pause is joined', async ({
  page,
}) => {
  await noCountdown(page);
  const id = await newProject(page, 'Live');
  await page.goto(`/projects/${id}/record`);
  await page.getByLabel('Screen', { exact: true }).selectOption('practice');
  await expect(page.getByLabel('Screen state')).toContainText('ready');
  await page.getByRole('button', { name: 'Area', exact: true }).click();
  await page.getByRole('checkbox', { name: 'Only an area' }).check();
  await page.getByLabel('Width', { exact: true }).fill('1601');
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('1602');
  await page.getByLabel('Name of this area').fill('Work area');
  await page.getByRole('button', { name: 'Save area', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Work area', exact: true })).toBeVisible();
  const box = (await page.getByTestId('live-overlay').boundingBox())!;
  const spot = (x: number, y: number): [number, number] => [
    box.x + box.width * x,
    box.y + box.height * y,
  ];
  await record(page, async () => {
    await page.mouse.move(...spot(0.5, 0.5));
    await page.waitForTimeout(300);
    await page.keyboard.press('Alt+L');
    await page.mouse.move(...spot(0.3, 0.3));
    await page.mouse.down();
    await page.mouse.move(...spot(0.6, 0.35), { steps: 8 });
    await page.mouse.up();
    await page.getByRole('button', { name: 'Box' }).click();
    await page.mouse.move(...spot(0.4, 0.5));
    await page.mouse.down();
    await page.mouse.move(...spot(0.5, 0.6), { steps: 4 });
    await page.mouse.up();
    await page.keyboard.press('Alt+M');
    // Two things of one frame would be one marker.
    await page.waitForTimeout(150);
    await page.keyboard.press('Alt+.');
    await expect(page.getByTestId('ghost')).toBeVisible();
    await page.keyboard.press('Alt+O');
    await page.mouse.move(...spot(0.9, 0.9));
    await page.keyboard.press('Alt+.');
    await expect(page.getByTestId('ghost')).toHaveCount(0);
    await page.waitForTimeout(400);
    await page.mouse.dblclick(...spot(0.7, 0.7));
    await page.keyboard.press('Alt+4');
    await page.keyboard.press('Alt+C');
    await page.waitForTimeout(1200);
  });
  await keep(page);
  await saved(page);
  const { project } = await openDocument(page, id);
  expect(project.callouts.map((c) => c.kind).sort()).toEqual(['box', 'stroke']);
  const end = Math.max(...project.lanes.flatMap((l) => l.clips.map((c) => c.start + c.duration)));
  // Cleared before the end.
  for (const callout of project.callouts) expect(callout.end).toBeLessThan(end);
  expect(project.framings).toHaveLength(1);
  expect(project.framings[0]!.reason).toBe('asked for while recording');
  expect(project.layouts.map((l) => l.layout.name)).toEqual(['Screen only']);
  expect(project.markers.map((m) => m.name)).toEqual(['Marker 1', 'Pause']);
  expect(project.looks[0]!.area).toMatchObject({ width: 1602 });
  const footageId = project.lanes.find((l) => l.kind === 'screen')!.clips[0]!.footageId;
  const track = (await (await page.request.get(`/api/footage/${footageId}/pointer`)).json()) as {
    samples: [number, number, number][];
    events: { t: number; type: string }[];
  };
  // No jump over the pause: after the join the pointer glides.
  const join = track.events.find((e) => e.type === 'join')!;
  const steps = track.samples.filter(([t]) => t >= join.t && t < join.t + 300);
  const largest = Math.max(...steps.slice(1).map(([, x], i) => Math.abs(x - steps[i]![1])));
  expect(steps.length).toBeGreaterThan(10);
  expect(largest).toBeLessThan(200);
  // The saved area is there in the next project, and can go.
  await page.reload();
  await page.getByLabel('Screen', { exact: true }).selectOption('practice');
  await page.getByRole('button', { name: 'Area', exact: true }).click();
  await page.getByRole('button', { name: 'Delete Work area' }).click();
  await expect(page.getByRole('button', { name: 'Work area', exact: true })).toHaveCount(0);
});

test('the microphone test tells a good voice from one that is too quiet', async ({ page }) => {
  const id = await newProject(page, 'Check');
  await page.goto(`/projects/${id}/record`);
  await page.getByLabel('Microphone', { exact: true }).selectOption('practice');
  await expect(page.getByLabel('Microphone state')).toContainText('ready');
  const verdict = page.getByLabel('Microphone test');
  await page.getByRole('button', { name: 'Test for five seconds' }).click();
  await expect(verdict).toContainText('good', { timeout: 20_000 });
  await page.getByLabel('Practice microphone sounds').selectOption('too quiet');
  await page.getByRole('button', { name: 'Test for five seconds' }).click();
  await expect(verdict).toContainText('too quiet', { timeout: 20_000 });
  await page.getByRole('button', { name: /Use a gain of \+/ }).click();
  await expect(page.getByRole('slider', { name: 'Gain' })).not.toHaveValue('0');
});

test('no devices and no permission are said plainly, and a second tab does not record over the first', async ({
  page,
  context,
}) => {
  await noCountdown(page);
  const id = await newProject(page, 'Nothing there');
  await page.goto(`/projects/${id}/record`);
  await page.getByLabel('Microphone', { exact: true }).selectOption({ index: 1 });
  await expect(page.getByLabel('Microphone state')).toContainText(
    /blocked|not plugged in|not available/,
    { timeout: 20_000 },
  );
  await page.keyboard.press('Alt+Enter');
  await expect(message(page, 'Switch a source on first')).toBeVisible();
  await page.getByLabel('Microphone', { exact: true }).selectOption('practice');
  await expect(page.getByLabel('Microphone state')).toContainText('ready');
  await page.keyboard.press('Alt+Enter');
  await expect(page.getByTestId('elapsed')).toBeVisible();
  const other = await context.newPage();
  await other.goto(`/projects/${id}/record`);
  await expect(other.getByText('Another tab is recording for this project')).toBeVisible();
  await other.getByLabel('Microphone', { exact: true }).selectOption('practice');
  await expect(other.getByLabel('Microphone state')).toContainText('ready');
  await other.keyboard.press('Alt+Enter');
  await expect(
    message(other, /Another tab is recording for this project. Stop it there first/),
  ).toBeVisible();
  // What was refused leaves nothing to be rescued.
  await other.waitForTimeout(3500);
  await expect(other.getByRole('button', { name: 'Rescue it' })).toHaveCount(0);
  await page.bringToFront();
  await page.keyboard.press('Alt+Enter');
  await expect(page.getByRole('region', { name: 'Review' })).toBeVisible({ timeout: 30_000 });
  // Discarded, and brought back.
  await page.getByRole('button', { name: 'Discard', exact: true }).click();
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  await expect(page.getByRole('region', { name: 'Review' })).toBeVisible();
});

test('a take ends by itself after the set time, and says so', async ({ page }) => {
  await page.addInitScript(() =>
    localStorage.setItem('record-settings', JSON.stringify({ countdown: 1, stopAfter: 2 })),
  );
  const id = await newProject(page, 'By itself');
  await page.goto(`/projects/${id}/record`);
  await page.getByLabel('Microphone', { exact: true }).selectOption('practice');
  await expect(page.getByLabel('Microphone state')).toContainText('ready');
  // Taken back while it counts down, and then in earnest.
  await page.getByRole('button', { name: /^Record/ }).click();
  await expect(page.getByRole('timer', { name: 'Countdown' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Record/ })).toBeVisible();
  await page.waitForTimeout(1500);
  expect(await takesOf(page, id)).toEqual([]);
  await page.keyboard.press('Alt+Enter');
  await expect(page.getByRole('region', { name: 'Review' })).toContainText(
    'ended after the set time',
    { timeout: 30_000 },
  );
  const [take] = await takesOf(page, id);
  expect(take!.reason).toBe('time');
  expect(take!.seconds).toBeGreaterThan(1.7);
  expect(take!.seconds).toBeLessThan(4);
});
