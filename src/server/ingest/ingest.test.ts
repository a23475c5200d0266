import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
// FFmpeg gives some signs in names a meaning of their own.
process.env.VISTUM_DATA = join(folder, "it's 100%|data");

import { PIECE_SECONDS } from '@/core/project/stand-ins';
import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { addFootage } from '../footage/add';
import { footageFile } from '../footage/names';
import { findFootage, viewOf } from '../footage/view';
import { completeJob } from '../jobs/complete';
import { runJob } from '../jobs/runner';
import { runMedia } from '../media/process';
import { newProject } from '../projects';

const never = new AbortController().signal;
const RATE = 30;
const SECONDS = 24;
const path = join(folder, 'brighter.mp4');
let context: ServerContext;
let projectId: string;
beforeAll(async () => {
  context = await localContext();
  projectId = await newProject(context, 'Ingest', 1280, 720, { num: RATE, den: 1 });
  // Each picture is as bright as its time is late.
  ffmpeg(
    ...['-f', 'lavfi', '-i', `color=black:s=320x180:r=${RATE}:d=${SECONDS}`],
    ...['-f', 'lavfi', '-i', `sine=r=48000:d=${SECONDS}`],
    ...['-vf', `geq=lum='16+N/${(RATE * SECONDS) / 200}':cb=128:cr=128`, '-pix_fmt', 'yuv420p'],
    ...['-c:v', 'libx264', '-preset', 'ultrafast', '-qp', '8', '-c:a', 'aac', path],
  );
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const bring = () =>
  addFootage(context, { projectId, path, name: 'brighter.mp4', role: null, take: false });
const told = async (id: string) => viewOf(context, await findFootage(context, id));
/** Mean light of a picture of a file. */
async function lightOf(file: string, filter: string): Promise<number> {
  const bytes = await runMedia('ffmpeg', [
    ...['-v', 'error', '-i', await context.stores.files.path(file), '-vf', filter],
    ...['-frames:v', '1', '-pix_fmt', 'gray', '-f', 'rawvideo', 'pipe:1'],
  ]);
  return bytes.reduce((sum, value) => sum + value, 0) / bytes.length;
}
/** The light that was given to the picture at a time, from black to white. */
const givenAt = (seconds: number): number => (Math.floor((seconds / SECONDS) * 200) * 255) / 219;

test('a recording is known, and can be placed, as soon as it was looked at', async () => {
  const { footageId, jobId } = await bring();
  expect(await told(footageId)).toMatchObject({ facts: null, status: 'waiting' });
  await runJob(context, (await context.queue.claim('w', { id: jobId }))!, never);
  expect(await told(footageId)).toMatchObject({
    ...{ status: 'waiting', role: 'screen', trouble: null, standIns: { parts: [], pieces: 0 } },
    facts: { width: 320, height: 180, hasAudio: true, frames: RATE * SECONDS },
  });
  expect(await context.queue.active(projectId)).toMatchObject([
    { type: 'ingest', subject: footageId },
  ]);
});

test('its sound and pieces of its picture are there before it is ready, each with its pictures', async () => {
  const { footageId, jobId } = await bring();
  const { files } = context.stores;
  // What there is is looked at as each file comes.
  const seen: { parts: readonly string[]; pieces: number }[] = [];
  const put = files.put.bind(files);
  const lights: number[] = [];
  jest.spyOn(files, 'put').mockImplementation(async (name, from) => {
    await put(name, from);
    const view = await told(footageId);
    if (!view.facts || view.status !== 'waiting') return;
    seen.push(view.standIns);
    const piece = /proxy-(\d{4})\.mp4$/.exec(name);
    if (piece) {
      const begins = Number(piece[1]) * PIECE_SECONDS;
      lights.push(await lightOf(name, 'null'), givenAt(begins));
    }
  });
  await completeJob(context, jobId, never);
  jest.restoreAllMocks();
  expect(seen).toContainEqual({ parts: ['sound', 'peaks'], pieces: 0 });
  expect(seen).toContainEqual({ parts: ['sound', 'peaks'], pieces: 1 });
  for (let i = 0; i < lights.length; i += 2)
    expect(Math.abs(lights[i]! - lights[i + 1]!)).toBeLessThan(1.5);
  expect(await told(footageId)).toMatchObject({
    status: 'ready',
    standIns: { parts: ['proxy', 'sound', 'thumbs', 'peaks'], pieces: 0 },
  });
  const left = (await files.list(`footage/${footageId}`)).map(({ name }) => name);
  expect(left.filter((name) => name.startsWith('proxy'))).toEqual(['proxy.mp4']);
  // Each small view shows the picture at which its two seconds begin.
  for (const slot of [0, 1, 6, SECONDS / 2 - 1]) {
    const light = await lightOf(
      footageFile(footageId, 'thumbs.jpg'),
      `crop=128:72:${slot * 128}:0`,
    );
    expect(Math.abs(light - givenAt(slot * 2))).toBeLessThan(2);
  }
});

test('a recording that is deleted for good while it is prepared leaves nothing', async () => {
  const { footageId, jobId } = await bring();
  await runJob(context, (await context.queue.claim('w', { id: jobId }))!, never);
  const [, preparing] = await context.queue.about([footageId]);
  const job = (await context.queue.claim('w', { id: preparing!.id }))!;
  const { files } = context.stores;
  const put = files.put.bind(files);
  jest.spyOn(files, 'put').mockImplementation(async (name, from) => {
    await put(name, from);
    await context.db.footage.destroy({ where: { id: footageId } });
    await context.queue.cancel(job.id);
  });
  await runJob(context, job, never);
  jest.restoreAllMocks();
  expect(await files.list(`footage/${footageId}`)).toEqual([]);
});
