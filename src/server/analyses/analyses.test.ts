import { copyFileSync, existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ANALYSIS_NAMES } from '@/contract/analyses';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import type { WallEstimate } from '@/core/key/wall';
import { closeDatabase } from '../db/connection';
import { attachTrack } from '../footage/attach-track';
import { footageFolder, originalPath, sentTrackPath } from '../testing/stored';
import { runJob } from '../jobs/runner';
import { probeMedia } from '../media/probe';
import { workFolder } from '../places';
import { newProject } from '../projects';
import { cancelAnalysis, listAnalyses, readResult, requestAnalysis, resultOf } from './analyses';
import { fingerprint } from './fingerprint';
import { ANALYSES } from './index';
import { analysisWork } from './job';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const green = join(folder, 'green.mp4');
const sound = join(folder, 'sound.wav');
let project = '';
beforeAll(async () => {
  const box = 'drawbox=x=200:y=60:w=240:h=300:c=0xc08a70:t=fill';
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    `color=c=0x2f9a4b:s=640x360:r=30:d=3,${box}`,
    '-pix_fmt',
    'yuv420p',
    green,
  );
  ffmpeg('-f', 'lavfi', '-i', 'sine=330:d=1', sound);
  project = await newProject(context, 'Analysed', 1280, 720, { num: 30, den: 1 });
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

let count = 0;
/** A recording of the project, as ingest leaves it. */
async function brought(path: string): Promise<string> {
  const { footage } = context.db;
  const id = `footage-${count++}`;
  const row = await footage.create({
    ...{ id, projectId: project, name: id, role: 'presenter', status: 'ready', error: null },
    ...{ notes: '[]', file: `original${path.slice(-4)}`, bytes: 1, hasPointer: false },
    ...{ facts: JSON.stringify((await probeMedia(path)).facts), deletedAt: null },
    ...{ inPoint: null, outPoint: null, origin: null },
  });
  mkdirSync(dirname(originalPath(row)), { recursive: true });
  copyFileSync(path, originalPath(row));
  return id;
}
/** Does what is queued, as the worker would. */
async function work(stop = new AbortController().signal) {
  for (;;) {
    const job = await context.queue.claim('worker-of-test', { type: 'analysis' });
    if (!job) return;
    await runJob(context, job, stop);
  }
}
const found = async (footageId: string) =>
  (await listAnalyses(context, project)).filter((a) => a.footageId === footageId);

test('the wall of a recording is found by a job, told of as it comes, and read as its result', async () => {
  const id = await brought(green);
  const asked = await requestAnalysis(context, id, 'wall');
  expect(asked).toMatchObject({ status: 'waiting', kind: 'wall' });
  // Asked for again meanwhile, it is the same one.
  expect(await requestAnalysis(context, id, 'wall')).toMatchObject({
    id: asked.id,
    jobId: asked.jobId,
  });
  await expect(readResult(context, asked.id)).rejects.toMatchObject({ code: 'analysis-not-ready' });
  await work();
  const [row] = await found(id);
  expect(row).toMatchObject({ id: asked.id, status: 'ready', outdated: false, error: null });
  const wall = JSON.parse(String(await readResult(context, asked.id))) as WallEstimate;
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(wall.color.slice(i, i + 2), 16));
  expect(Math.abs(r! - 0x2f) + Math.abs(g! - 0x9a) + Math.abs(b! - 0x4b)).toBeLessThan(24);
  expect(row!.summary).toEqual({ color: wall.color });
  expect(await requestAnalysis(context, id, 'wall')).toMatchObject({
    id: asked.id,
    status: 'ready',
    jobId: null,
  });
});

test('the same content under another name is not looked at again', async () => {
  const first = await brought(green);
  const { id } = await requestAnalysis(context, first, 'wall');
  await work();
  const run = jest.spyOn(ANALYSES.wall, 'run');
  const copy = await brought(green);
  const again = await requestAnalysis(context, copy, 'wall');
  await work();
  expect(run).not.toHaveBeenCalled();
  expect(await readResult(context, again.id)).toEqual(await readResult(context, id));
  // What a copy has is its own: the first may go.
  rmSync(footageFolder(first), { recursive: true });
  expect(String(await readResult(context, again.id))).toContain('#');
  run.mockRestore();
});

test('a result that was taken out of the data folder is not there, and is made anew', async () => {
  const id = await brought(green);
  const first = await requestAnalysis(context, id, 'wall');
  await work();
  rmSync((await resultOf(context, id, 'wall'))!);
  expect(await resultOf(context, id, 'wall')).toBeNull();
  await expect(readResult(context, first.id)).rejects.toMatchObject({ status: 404 });
  const again = await requestAnalysis(context, id, 'wall');
  expect(again).toMatchObject({ status: 'waiting', jobId: expect.any(String) });
  await work();
  expect(String(await readResult(context, again.id))).toContain('#');
});

test('one that an earlier version made says so, and is made anew when it is asked for', async () => {
  const id = await brought(green);
  const old = await requestAnalysis(context, id, 'wall');
  await work();
  const { analyses } = context.db;
  await analyses.update({ version: 0 }, { where: { id: old.id } });
  expect((await found(id))[0]).toMatchObject({ outdated: true });
  const fresh = await requestAnalysis(context, id, 'wall');
  expect(fresh).toMatchObject({ status: 'waiting' });
  await work();
  expect(await found(id)).toEqual([expect.objectContaining({ id: fresh.id, outdated: false })]);
});

test('a recording without a picture, or one that is damaged, is refused with a sentence and leaves nothing behind', async () => {
  await expect(requestAnalysis(context, await brought(sound), 'wall')).rejects.toMatchObject({
    code: 'footage-not-ready',
  });
  const id = await brought(green);
  const { footage } = context.db;
  writeFileSync(originalPath((await footage.findByPk(id))!), 'no video at all');
  await requestAnalysis(context, id, 'wall');
  await work();
  const [row] = await found(id);
  expect(row!.status).toBe('failed');
  expect(row!.error).toMatch(/^[A-Z].*\.$/);
  expect(readdirSync(footageFolder(id))).toEqual(['original.mp4']);
  expect(readdirSync(workFolder('analyses'))).toEqual([]);
  // Asked for once more, it is tried once more.
  expect(await requestAnalysis(context, id, 'wall')).toMatchObject({ status: 'waiting' });
  await work();
});

test('one that is stopped is not done, and nothing comes of a worker that goes on all the same', async () => {
  const id = await brought(green);
  const { id: analysis } = await requestAnalysis(context, id, 'wall');
  const job = (await context.queue.claim('slow-worker', { type: 'analysis' }))!;
  await cancelAnalysis(context, analysis);
  await runJob(context, job, new AbortController().signal);
  expect((await found(id))[0]).toMatchObject({ status: 'failed', error: 'Cancelled' });
  expect(readdirSync(footageFolder(id)).filter((name) => name.startsWith('wall'))).toEqual([]);
});

test('a pointer track that was sent becomes the recording’s; a new one takes its place; one that can’t be read says why', async () => {
  const id = await brought(green);
  const track = (x: number) =>
    JSON.stringify({
      ...{ format: 'vistum-pointer', version: 1, width: 640, height: 360 },
      ...{
        samples: [
          [0, x, 5],
          [90, x + 9, 6],
        ],
        events: [],
      },
    });
  for (const x of [10, 20]) {
    writeFileSync(sentTrackPath(id), track(x));
    const { id: analysis } = await requestAnalysis(context, id, 'pointer', { again: true });
    await work();
    expect(JSON.parse(String(await readResult(context, analysis)))).toMatchObject({
      samples: [
        [0, x, 5],
        [90, x + 9, 6],
      ],
    });
    expect(existsSync(sentTrackPath(id))).toBe(false);
  }
  const { footage } = context.db;
  const row = await footage.findByPk(id);
  expect(row).toMatchObject({ hasPointer: true, notes: '["Pointer track: 2 positions."]' });
  expect(await found(id)).toHaveLength(1);
  writeFileSync(sentTrackPath(id), '{"format":');
  await requestAnalysis(context, id, 'pointer', { again: true });
  await work();
  expect((await found(id))[0]).toMatchObject({ status: 'failed' });
  expect((await footage.findByPk(id))!.notes).toMatch(/it was not attached/);
  await attachTrack(context, id, track(30));
  expect((await found(id))[0]).toMatchObject({ status: 'ready', summary: { samples: 2 } });
});

test('content is told by a fingerprint, wherever it differs', async () => {
  const path = join(folder, 'bytes.bin');
  const bytes = Buffer.alloc(3 << 20, 7);
  writeFileSync(path, bytes);
  const first = await fingerprint(path);
  expect(await fingerprint(path)).toBe(first);
  for (const at of [0, bytes.length - 1]) {
    const changed = Buffer.from(bytes);
    changed[at] = 8;
    writeFileSync(path, changed);
    expect(await fingerprint(path)).not.toBe(first);
  }
  writeFileSync(path, bytes.subarray(1));
  expect(await fingerprint(path)).not.toBe(first);
  writeFileSync(path, '');
  expect(await fingerprint(path)).toHaveLength(64);
});

test('every analysis has what the queue needs of it', () => {
  for (const name of ANALYSIS_NAMES) {
    expect(ANALYSES[name].version).toBeGreaterThan(0);
    expect(ANALYSES[name].seconds()).toBeLessThan(analysisWork.seconds());
  }
});
