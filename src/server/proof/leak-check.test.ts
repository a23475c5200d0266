import { rmSync, writeFileSync } from 'node:fs';
import { createCanvas } from '@napi-rs/canvas';
import { UNPOSED } from '@/core/callout/keyframes';
import { USUAL_MOTION } from '@/core/callout/motion';
import { addSpan } from '@/core/edit/spans';
import type { Project } from '@/core/project/model';
import { meet } from '@/core/scale/rect';
import type { LeakSpot } from '@/core/proof/leaks';
import { secondsToTicks } from '@/core/time/ticks';
import { exportFile } from '../export/export-file';
import type { RenderTask } from '../export/render-frames';
import { probeMedia } from '../media/probe';
import { control, file, settings, taskOf } from '../testing/export';
import { ffmpeg } from '../testing/media';
import { checkCovers } from './leak-check';

const SECRET = { x: 400, y: 300, width: 330, height: 30 };
/** Where the lens is that shows it larger. */
const LENS = { x: 700, y: 60, width: 560, height: 180 };

/** A page of lines of text, one of which is to be hidden. */
beforeAll(() => {
  const canvas = createCanvas(1280, 720);
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#fbfaf7';
  pen.fillRect(0, 0, 1280, 720);
  pen.fillStyle = '#1e2a32';
  pen.font = '20px sans-serif';
  for (let row = 0; row < 18; row++)
    pen.fillText(`Shelf ${row * 7}, cone ${row % 9}, fired by kiln ${row % 4}`, 60, 30 + row * 40);
  pen.fillText('ilse.varga@kilnbook.example', SECRET.x + 8, SECRET.y + 22);
  writeFileSync(file('page.png'), canvas.toBuffer('image/png'));
  ffmpeg(
    ...['-loop', '1', '-framerate', '10', '-t', '1', '-i', file('page.png')],
    ...['-pix_fmt', 'yuv420p', '-crf', '16', file('page.mp4')],
  );
});
afterAll(() => rmSync(file(''), { recursive: true, force: true }));

const span = {
  ...{ start: 0, end: secondsToTicks(1), ...UNPOSED },
  anchor: { to: 'footage' as const, footageId: 'page.mp4' },
};

function lensed(project: Project): void {
  addSpan(project, 'callouts', {
    ...{ id: 'lens', kind: 'lens', ...span, ...USUAL_MOTION, entrance: 'none', exit: 'none' },
    ...{ rect: SECRET, power: 1.5, sharp: false, shape: 'rounded', color: '#1e2a32', line: 4 },
    offset: {
      dx: LENS.x + LENS.width / 2 - SECRET.x - SECRET.width / 2,
      dy: LENS.y + LENS.height / 2 - SECRET.y - SECRET.height / 2,
    },
  });
}

function covered(project: Project): void {
  lensed(project);
  addSpan(project, 'callouts', {
    ...{ id: 'cover', kind: 'cover', way: 'solid', color: '#1e2a32', strength: 24 },
    ...{ ...span, rect: SECRET },
  });
}

const made = { ...settings, frameRate: { num: 10, den: 1 } };

/** Exports the page as a project has it, under a name. */
async function exported(name: string, change: (p: Project) => void): Promise<RenderTask> {
  const task = { ...(await taskOf({ 'page.mp4': 'screen' }, change)), rate: made.frameRate };
  await exportFile(task, made, file(`work-${name}`), file(`${name}.mp4`), control());
  return task;
}

/** Where an export shows what the cover of a project is to hide. */
async function spotsIn(name: string, task: RenderTask, frames = 10): Promise<readonly LeakSpot[]> {
  const video = { path: file(`${name}.mp4`), facts: (await probeMedia(file(`${name}.mp4`))).facts };
  const { spots, checked } = await checkCovers({ task, video, origin: 0, frames }, () => {});
  expect(checked).toEqual(['cover']);
  return spots;
}

test('what is hidden is looked for in lenses too', async () => {
  const task = await exported('hidden', covered);
  await exported('bare', lensed);
  expect(await spotsIn('hidden', task)).toEqual([]);
  // The same without its cover: both places are told.
  const spots = await spotsIn('bare', task);
  expect(spots.some(({ rect }) => meet(rect, LENS) && rect.width > SECRET.width * 1.3)).toBe(true);
  expect(spots.some(({ rect }) => Math.abs(rect.x - SECRET.x) < 4)).toBe(true);
  expect(spots.every(({ coverId }) => coverId === 'cover')).toBe(true);
});

test('what is hidden is looked for where it is seen turned', async () => {
  const turned = (project: Project) =>
    addSpan(project, 'framings', {
      ...{ id: 'f', start: 0, end: secondsToTicks(1), rampIn: 0, rampOut: 0, turn: 9 },
      ...{ footageId: 'page.mp4', rect: { x: 240, y: 160, width: 800, height: 450 } },
      ...{ endRect: null, pinned: true, reason: '' },
    });
  const task = await exported('turned', (project) => {
    covered(project);
    turned(project);
  });
  await exported('turned-bare', (project) => {
    lensed(project);
    turned(project);
  });
  expect(await spotsIn('turned', task, 3)).toEqual([]);
  const spots = await spotsIn('turned-bare', task, 3);
  expect(new Set(spots.map(({ frame }) => frame)).size).toBe(3);
  expect(spots.every(({ coverId }) => coverId === 'cover')).toBe(true);
});
