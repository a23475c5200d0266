import { execFileSync } from 'node:child_process';
import { rmSync } from 'node:fs';
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
import { CAMERA_HEIGHT, CAMERA_WIDTH, drawPresenter, hairStrands } from '@/practice/presenter';
import { drawRoom } from '@/practice/room';
import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { openProject, saveProject } from '../documents/documents';
import { renderTask, requestExport } from '../export/job';
import { DEFAULT_SETTINGS } from '../export/settings';
import { renderStill } from '../export/still';
import { addFootage } from '../footage/add';
import { loadFacts, loadSources } from '../footage/facts';
import { newId } from '../ids';
import { completeJob } from '../jobs/complete';
import { duplicateProject, newProject } from '../projects';
import { findAnalysis } from './analyses';
import { mattesOf } from './mattes';
import { requestMatte } from './request-matte';

const never = new AbortController().signal;
const RATE = { num: 15, den: 1 };
/** The first pictures show the room alone. */
const EMPTY = 8;
const FRAMES = 38;
const room = join(folder, 'room.mp4');
const bars = join(folder, 'bars.mp4');
let context: ServerContext;

beforeAll(async () => {
  context = await localContext();
  const canvas = createCanvas(CAMERA_WIDTH, CAMERA_HEIGHT);
  const pen = canvas.getContext('2d');
  const strands = hairStrands(() => 0.5);
  const raw = Buffer.concat(
    Array.from({ length: FRAMES }, (_, n) => {
      drawRoom(pen);
      if (n >= EMPTY) drawPresenter(pen, strands, n / 5, 0.5);
      const { data } = pen.getImageData(0, 0, CAMERA_WIDTH, CAMERA_HEIGHT);
      return Buffer.from(data.buffer, 0, data.byteLength);
    }),
  );
  execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'rgba'],
      ...['-s', `${CAMERA_WIDTH}x${CAMERA_HEIGHT}`, '-r', '15', '-i', '-'],
      ...['-vf', 'scale=640:360:out_color_matrix=bt709:out_range=tv,format=yuv420p'],
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '18'],
      ...['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', room],
    ],
    { input: raw },
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

test('a presenter in a room is told from it by the person, and by a shot without them', async () => {
  const { projectId, footageId } = await presented(room, { method: 'person' });
  const settings = { ...DEFAULT_SETTINGS, width: 640, height: 360, frameRate: RATE };
  await expect(requestExport(context, projectId, settings)).rejects.toThrow('not taken out yet');
  const person = await matte(footageId, { method: 'person', shot: null });
  expect(person.seen).toBeGreaterThan(0.7);
  expect(person.behind).toBeGreaterThan(0.5);
  // Wall, window and shelves are gone; face, apron and neck are there.
  const at = await picture(projectId, 2);
  for (const [x, y] of [
    [20, 20],
    [100, 100],
    [560, 150],
    [620, 340],
  ] as const)
    expect(isGreen(at(x, y))).toBe(true);
  for (const [x, y] of [
    [320, 130],
    [320, 300],
    [320, 205],
  ] as const)
    expect(isGreen(at(x, y))).toBe(false);
  // Nobody is there at first.
  const before = await picture(projectId, 0.2);
  for (const x of [100, 320, 500]) expect(isGreen(before(x, 180))).toBe(true);

  const shot = await matte(footageId, { method: 'shot', shot: SHOT });
  expect(shot).toMatchObject({ method: 'shot', shot: SHOT });
  expect(shot.behind).toBeGreaterThan(0.85);
  const made = await mattesOf(context, projectId);
  expect(made[footageId]!.map(({ method }) => method)).toEqual(['shot', 'person']);

  // A copy has mattes of its own.
  const copy = await duplicateProject(context, projectId);
  const { project } = await openProject(context, copy);
  const key = project.keys[0]!;
  const sources = await loadSources(context, copy, new Set([key.footageId]));
  expect(key.footageId).not.toBe(footageId);
  expect(matteOf(sources, key)).not.toBeNull();
  expect(isGreen((await picture(copy, 2))(20, 20))).toBe(true);
  const { exportId } = await requestExport(context, copy, settings);
  expect(exportId).not.toBe('');
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
