import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import type { FollowTask } from '@/contract/analyses';
import { shiftAt, type FollowPath } from '@/core/callout/follow-path';
import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { addFootage } from '../footage/add';
import { completeJob } from '../jobs/complete';
import { newProject } from '../projects';
import { cancelAnalysis, listAnalyses, readResult } from './analyses';
import { requestTrack } from './request-track';

const never = new AbortController().signal;
/** How far the page is scrolled in a picture. */
const scrolled = (n: number) => Math.floor(100 * Math.sin(Math.min(1, n / 50) * Math.PI));
let context: ServerContext;
let projectId = '';
let footageId = '';
beforeAll(async () => {
  const canvas = createCanvas(640, 800);
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#f6f5f1';
  pen.fillRect(0, 0, 640, 800);
  pen.fillStyle = '#26303a';
  pen.font = '17px sans-serif';
  for (let i = 0; i < 24; i++)
    pen.fillText(
      `Firing ${1000 + i * 37}, cone ${(i * 7) % 11}, ${'glaze shelf '.repeat(i % 3)}`,
      40,
      30 + i * 32,
    );
  const still = join(folder, 'page.png');
  const file = join(folder, 'page.mp4');
  writeFileSync(still, canvas.toBuffer('image/png'));
  ffmpeg(
    ...['-loop', '1', '-framerate', '25', '-t', '2.4', '-i', still],
    ...['-vf', "crop=640:360:0:'floor(100*sin(min(1,n/50)*PI))'", '-pix_fmt', 'yuv420p', file],
  );
  context = await localContext();
  projectId = await newProject(context, 'Followed', 640, 360, { num: 25, den: 1 });
  const added = await addFootage(context, {
    ...{ projectId, path: file, name: 'page.mp4', role: 'screen', take: false },
  });
  await completeJob(context, added.jobId, never);
  footageId = added.footageId;
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const TASK: FollowTask = { x: 36, y: 200, width: 260, height: 28, ms: 800, from: 0, to: 2400 };

async function found(task: FollowTask): Promise<FollowPath | null> {
  const { id, jobId } = await requestTrack(context, footageId, task);
  if (jobId) await completeJob(context, jobId, never);
  return JSON.parse(String(await readResult(context, id))) as FollowPath | null;
}

test('what is marked in a recording is followed through it, onwards and back', async () => {
  const path = (await found(TASK))!;
  expect(path.of).toEqual({ width: 640, height: 360, length: 2400 });
  for (let n = 0; n < 60; n++)
    expect(shiftAt(path, n * 40)).toMatchObject({
      dx: 0,
      dy: scrolled(20) - scrolled(n),
      sure: true,
    });
});

test('each thing that is asked for is kept by itself, and answered at once when asked again', async () => {
  const other = { ...TASK, y: 136 };
  await found(other);
  const { jobId } = await requestTrack(context, footageId, TASK);
  expect(jobId).toBeNull();
  const kept = (await listAnalyses(context, projectId)).filter(({ kind }) => kind === 'track');
  expect(kept.map(({ status }) => status)).toEqual(['ready', 'ready']);
});

test('where nothing can be told again it says so, and it has to be said what to follow', async () => {
  expect(await found({ ...TASK, x: 560, width: 60 })).toBeNull();
  expect(() => requestTrack(context, footageId, undefined)).toThrow(/follow has to say/);
});

test('however much is asked for at once, nothing that waits is given up', async () => {
  const asked = await Promise.all(
    Array.from({ length: 30 }, (_, i) => requestTrack(context, footageId, { ...TASK, x: 40 + i })),
  );
  const rows = await listAnalyses(context, projectId);
  for (const { id } of asked)
    expect(rows.find((row) => row.id === id)).toMatchObject({ status: 'waiting' });
  for (const { id } of asked) await cancelAnalysis(context, id);
});
