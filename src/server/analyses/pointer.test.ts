import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { closeDatabase } from '../db/connection';
import { addFootage } from '../footage/add';
import { footageFolder, trackPath } from '../testing/stored';
import { receiveTrack } from '../footage/receive-track';
import { listFootage } from '../footage/view';
import { completeJob } from '../jobs/complete';
import { newProject } from '../projects';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const never = new AbortController().signal;
let projectId = '';
let footageId = '';
beforeAll(async () => {
  const path = join(folder, 'a.mp4');
  ffmpeg(...['-f', 'lavfi', '-i', 'testsrc=s=640x360:r=30:d=1', '-pix_fmt', 'yuv420p', path]);
  projectId = await newProject(context, 'Tracks', 1280, 720, { num: 30, den: 1 });
  const added = await addFootage(context, {
    ...{ projectId, path, name: 'a.mp4', role: 'screen', take: false },
  });
  footageId = added.footageId;
  await completeJob(context, added.jobId, never);
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const track = (samples: number[][], size = { width: 640, height: 360 }) =>
  JSON.stringify({ format: 'vistum-pointer', version: 1, ...size, samples, events: [] });
const send = async (body: string) => {
  const request = new Request('http://127.0.0.1/x', { method: 'POST', body });
  const { jobId } = await receiveTrack(context, footageId, request);
  return completeJob(context, jobId, never).then(
    () => null,
    (error: Error) => error.message,
  );
};
const stored = () => JSON.parse(readFileSync(trackPath(footageId), 'utf8')) as PointerTrack;
const view = async () => (await listFootage(context, projectId)).find((f) => f.id === footageId)!;

test('a track is attached in the recording’s pixels, with what was mended told', async () => {
  const samples = [
    [20, 100, 100],
    [10, 4000, 100],
  ];
  expect(await send(track(samples, { width: 1280, height: 720 }))).toBeNull();
  expect(stored()).toMatchObject({ width: 640, height: 360 });
  expect(stored().samples).toEqual([
    [10, 639.5, 50],
    [20, 50, 50],
  ]);
  expect(await view()).toMatchObject({ hasPointer: true });
  expect((await view()).notes.filter((note) => note.startsWith('Pointer track'))).toEqual([
    'Pointer track: 2 positions.',
    expect.stringMatching(/ran backwards/),
    expect.stringMatching(/outside/),
  ]);
  expect(readdirSync(footageFolder(footageId)).filter((n) => /part|upload/.test(n))).toEqual([]);
});

test('one that is refused says why, and the one before stays', async () => {
  const before = stored();
  expect(await send('{"format":"vistum-pointer"')).toMatch(/not valid JSON/);
  expect(stored()).toEqual(before);
  const notes = (await view()).notes.filter((note) => note.startsWith('Pointer track'));
  expect(notes).toEqual([expect.stringMatching(/not attached\. .*not valid JSON/)]);
});

test('one that takes too long is given up', async () => {
  process.env.VISTUM_MAX_TRACK_SECONDS = '0.01';
  expect(await send(track([[0, 1, 1]]))).toMatch(/more time or memory/);
  delete process.env.VISTUM_MAX_TRACK_SECONDS;
});

test('one that is too large is refused while it comes', async () => {
  process.env.VISTUM_MAX_TRACK = '1000';
  await expect(send(track(Array.from({ length: 900 }, (_, i) => [i, 1, 1])))).rejects.toMatchObject(
    {
      status: 413,
    },
  );
  delete process.env.VISTUM_MAX_TRACK;
  await expect(send('')).rejects.toMatchObject({ code: 'no-file-sent' });
});

test('a very long one is thinned', async () => {
  const samples = Array.from({ length: 500_000 }, (_, i) => [i * 8, (i / 2000) % 600, 100]);
  expect(await send(track(samples))).toBeNull();
  expect(stored().samples.length).toBeLessThan(5000);
  const { jobs } = context.db;
  expect(await jobs.count({ where: { status: 'running' } })).toBe(0);
});
