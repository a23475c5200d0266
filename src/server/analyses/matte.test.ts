import { copyFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = join(folder, 'data');

import type { MatteSummary, MatteTask } from '@/contract/analyses';
import { doEdit } from '@/core/edit/history';
import { placeFootage } from '@/core/edit/place';
import { changeKey, changePresenter } from '@/core/edit/settings';
import { matteOf } from '@/core/key/matte-of';
import { LAYOUTS } from '@/core/layout/built-in';
import { setLayout } from '@/core/edit/spans';
import { secondsToTicks } from '@/core/time/ticks';
import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { openProject, saveProject } from '../documents/documents';
import { renderTask, requestExport } from '../export/job';
import { DEFAULT_SETTINGS } from '../export/settings';
import { renderStill } from '../export/still';
import { addFootage } from '../footage/add';
import { loadFacts, loadSources } from '../footage/facts';
import { relinkFootage } from '../footage/relink';
import { newId } from '../ids';
import { completeJob } from '../jobs/complete';
import { duplicateProject, newProject } from '../projects';
import { findAnalysis } from './analyses';
import { mattesOf } from './mattes';
import { requestMatte } from './request-matte';

const never = new AbortController().signal;
const RATE = { num: 15, den: 1 };
const room = join(folder, 'room.mp4');
const desk = join(folder, 'desk.mp4');
const bars = join(folder, 'bars.mp4');
let context: ServerContext;

beforeAll(async () => {
  context = await localContext();
  // A take in the studio, and a box that comes before a wall of tiles.
  const small = ['-vf', 'scale=640:360', '-r', '15', '-an', '-preset', 'ultrafast'];
  ffmpeg('-ss', '2', '-t', '2.4', '-i', 'demo/media/presenter-take-4.mp4', ...small, room);
  const box = "overlay=x='220+40*sin(3*t)':y=120:enable='gte(t,0.6)'";
  ffmpeg(
    ...['-f', 'lavfi', '-i', 'testsrc=s=640x360:r=1:d=1,loop=36:1:0,fps=15,trim=duration=2.4'],
    ...['-f', 'lavfi', '-i', 'color=#a04080:s=200x240:r=15:d=2.4'],
    ...['-filter_complex', `[0][1]${box}`, '-pix_fmt', 'yuv420p', '-preset', 'ultrafast', desk],
  );
  ffmpeg('-f', 'lavfi', '-i', 'smptebars=s=320x180:r=15:d=1', '-pix_fmt', 'yuv420p', bars);
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

/** A project in which a recording has the whole picture. */
async function presented(path: string, key: { method: 'person' | 'shot' }) {
  const projectId = await newProject(context, 'Room', 640, 360, RATE);
  const { footageId, jobId } = await addFootage(context, {
    ...{ projectId, path, name: 'camera.mp4', role: 'presenter', take: false },
  });
  await completeJob(context, jobId, never);
  const open = await openProject(context, projectId);
  const facts = await loadFacts(context, projectId);
  const done = doEdit(open, 'Place', (draft) => {
    placeFootage(draft, facts[footageId]!, 0, newId);
    setLayout(draft, { start: 0, end: secondsToTicks(3) }, LAYOUTS.presenter, newId);
    changePresenter(draft, { backdrop: '#20c040' });
    changeKey(draft, footageId, { on: true, ...key, ...(key.method === 'shot' && { shot: SHOT }) });
  });
  await saveProject(context, projectId, done.project, done.history, open.revision);
  return { projectId, footageId };
}

const SHOT = { start: 0, end: secondsToTicks(0.5) };

async function matte(footageId: string, task: MatteTask): Promise<MatteSummary> {
  const { id, jobId } = await requestMatte(context, footageId, task);
  if (jobId) await completeJob(context, jobId, never);
  return (await findAnalysis(context, id)).summary as unknown as MatteSummary;
}

/** What colour is where in the picture at a time. */
async function picture(projectId: string, seconds: number) {
  const { project } = await openProject(context, projectId);
  const size = { width: 640, height: 360 };
  const task = await renderTask(context, projectId, project, size, RATE);
  const image = await loadImage(await renderStill(task, seconds));
  const pen = createCanvas(640, 360).getContext('2d');
  pen.drawImage(image, 0, 0);
  return (x: number, y: number) => [...pen.getImageData(x, y, 1, 1).data.subarray(0, 3)];
}

const isGreen = ([r, g, b]: number[]) => g! > 150 && r! < 90 && b! < 120;

const SETTINGS = { ...DEFAULT_SETTINGS, width: 640, height: 360, frameRate: RATE };

test('a presenter in a room is told from it by being a person', async () => {
  const { projectId, footageId } = await presented(room, { method: 'person' });
  await expect(requestExport(context, projectId, SETTINGS)).rejects.toThrow('not taken out yet');
  const person = await matte(footageId, { method: 'person', shot: null });
  expect(person.seen).toBe(1);
  expect(person.behind).toBeGreaterThan(0.5);
  // Wall, window and shelves are gone; face, apron and neck are there.
  const at = await picture(projectId, 1);
  for (const [x, y] of [
    [20, 20],
    [100, 100],
    [560, 100],
    [620, 340],
  ] as const)
    expect(isGreen(at(x, y))).toBe(true);
  for (const [x, y] of [
    [320, 130],
    [320, 320],
    [320, 205],
  ] as const)
    expect(isGreen(at(x, y))).toBe(false);
});

test('whoever comes before a background that was seen without them is told from it', async () => {
  const { projectId, footageId } = await presented(desk, { method: 'shot' });
  const shot = await matte(footageId, { method: 'shot', shot: SHOT });
  expect(shot).toMatchObject({ method: 'shot', shot: SHOT });
  expect(shot.behind).toBeGreaterThan(0.85);
  expect((await mattesOf(context, projectId))[footageId]).toHaveLength(1);
  // Nobody is there at first.
  const before = await picture(projectId, 0.2);
  for (const x of [100, 320, 500]) expect(isGreen(before(x, 180))).toBe(true);
  const after = await picture(projectId, 1.5);
  for (const x of [60, 600]) expect(isGreen(after(x, 180))).toBe(true);
  for (const y of [160, 250, 340]) expect(isGreen(after(320, y))).toBe(false);

  // A copy has a matte of its own.
  const copy = await duplicateProject(context, projectId);
  const { project } = await openProject(context, copy);
  const key = project.keys[0]!;
  const sources = await loadSources(context, copy, new Set([key.footageId]));
  expect(key.footageId).not.toBe(footageId);
  expect(matteOf(sources, key)).not.toBeNull();
  expect(isGreen((await picture(copy, 1.5))(60, 180))).toBe(true);
  const { exportId } = await requestExport(context, copy, SETTINGS);
  expect(exportId).not.toBe('');

  // Another file in its place is another picture: its matte has to be made anew.
  const other = join(folder, 'other.mp4');
  copyFileSync(desk, other);
  await relinkFootage(context, projectId, footageId, other, 'other.mp4');
  expect(await mattesOf(context, projectId)).toEqual({});
  expect(Object.keys(await mattesOf(context, copy))).toEqual([key.footageId]);
});

test('nobody is found where nobody is, and a stretch that is none is refused', async () => {
  const { projectId, footageId } = await presented(bars, { method: 'person' });
  const found = await matte(footageId, { method: 'person', shot: null });
  expect(found.seen).toBe(0);
  expect(isGreen((await picture(projectId, 0.5))(320, 180))).toBe(true);
  const late = { start: 0, end: secondsToTicks(60) };
  for (const shot of [late, { start: 10, end: 10 }, null])
    await expect(requestMatte(context, footageId, { method: 'shot', shot })).rejects.toThrow(
      'not within the recording',
    );
  await expect(requestMatte(context, footageId, undefined)).rejects.toThrow('matte has to say');
});
