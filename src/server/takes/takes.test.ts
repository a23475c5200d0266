import { execFileSync } from 'node:child_process';
import { linkSync, mkdirSync, readFileSync, rmSync, statSync, truncateSync } from 'node:fs';
import { join } from 'node:path';
import { scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { ticksToSeconds, rateFromNumber } from '@/core/time/ticks';
import type { TakeSetup, TrackSetup } from '@/core/take/setup';
import type { EndReason } from '@/core/take/take';
import { closeDatabase } from '../db/connection';
import { readTrack } from '../footage/track';
import { listFootage } from '../footage/view';
import { probeMedia } from '../media/probe';
import { newProject } from '../projects';
import { runJob } from '../jobs/runner';
import { closeTake } from './close';
import { finishedPath } from './conform';
import { keepTake } from './keep';
import {
  addPiece,
  beginTake,
  findTake,
  listTakes,
  partSizes,
  setTakeDiscarded,
  viewTake,
} from './takes';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const voice: TrackSetup = {
  name: 'voice',
  type: 'audio',
  label: 'test',
  width: 0,
  height: 0,
  frameRate: 0,
  sampleRate: 48_000,
  channels: 1,
};
const screen: TrackSetup = {
  name: 'screen',
  type: 'video',
  label: 'test',
  width: 320,
  height: 180,
  frameRate: 30,
  sampleRate: 0,
  channels: 0,
};
const setup = (...tracks: TrackSetup[]): TakeSetup => ({
  tracks,
  area: null,
  gain: 0,
  camera: { mirror: false, brightness: 0, contrast: 1, area: null },
  hold: null,
  layout: 'corner',
});

let project: string;
let count = 0;
const takeId = () => `take-number-${++count}`;
const line = (event: object) => `${JSON.stringify(event)}\n`;
const pcm = (seconds: number) =>
  Buffer.from(
    Int16Array.from({ length: seconds * 48_000 }, (_, i) => 8000 * Math.sin(i / 20)).buffer,
  );

/** A fragmented MP4 as the recorder writes it. */
function fragmented(seconds: number): Buffer {
  const path = join(folder, `fragmented-${seconds}.mp4`);
  execFileSync('ffmpeg', [
    ...[
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      `testsrc2=s=320x180:r=30:d=${seconds}`,
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
    ],
    ...[
      '-g',
      '15',
      '-bf',
      '0',
      '-pix_fmt',
      'yuv420p',
      '-movflags',
      'frag_keyframe+empty_moov+default_base_moof',
      path,
    ],
  ]);
  return readFileSync(path);
}

/** Does the job that finishes a take. */
async function finish(id: string, stop = new AbortController().signal) {
  const job = (await context.queue.about([id])).find((j) => j.status === 'queued');
  await runJob(context, (await context.queue.claim('test', { id: job!.id }))!, stop);
  return viewTake(context, id);
}

/** Ends a take and waits until its tracks are finished. */
async function close(id: string, reason: EndReason) {
  await closeTake(context, id, reason);
  return finish(id);
}

beforeAll(async () => {
  project = await newProject(context, 'Takes', 1920, 1080, rateFromNumber(30));
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

test('pieces may come twice, overlap, or leave a hole that is asked for again', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'voice', setup(voice));
  const bytes = pcm(1);
  expect(await addPiece(context, id, 'voice', 0, bytes.subarray(0, 30_000))).toBe(30_000);
  expect(await addPiece(context, id, 'voice', 0, bytes.subarray(0, 30_000))).toBe(30_000);
  expect(await addPiece(context, id, 'voice', 50_000, bytes.subarray(50_000))).toBe(30_000);
  expect(await addPiece(context, id, 'voice', 20_000, bytes.subarray(20_000, 60_000))).toBe(60_000);
  expect(await addPiece(context, id, 'voice', 60_000, bytes.subarray(60_000))).toBe(bytes.length);
  expect((await partSizes(context, id)).voice).toBe(bytes.length);
  const closed = await close(id, 'stopped');
  expect(closed.seconds).toBeCloseTo(1, 3);
  const heard = execFileSync('ffmpeg', [
    '-v',
    'error',
    '-i',
    finishedPath(id, voice),
    '-f',
    's16le',
    '-',
  ]);
  expect(heard.equals(bytes)).toBe(true);
  await expect(addPiece(context, id, 'voice', bytes.length, bytes)).rejects.toMatchObject({
    status: 410,
  });
  await expect(addPiece(context, id, 'camera', 0, bytes)).rejects.toMatchObject({ status: 410 });
});

test('a take that was broken off is rescued up to its last whole piece', async () => {
  const id = takeId();
  await beginTake(context, project, id, 'a-step', 'all', setup(screen, voice));
  const video = fragmented(4);
  await addPiece(context, id, 'screen', 0, video.subarray(0, Math.floor(video.length * 0.8)));
  await addPiece(context, id, 'voice', 0, pcm(3).subarray(0, 280_001));
  await addPiece(
    context,
    id,
    'events',
    0,
    Buffer.from(
      `${line({ t: 100, type: 'pointer', x: 160, y: 90 })}${line({ t: 3000, type: 'join' })}{"t":31`,
    ),
  );
  const closed = await close(id, 'crashed');
  expect(closed).toMatchObject({ status: 'stopped', reason: 'crashed' });
  expect(closed.seconds).toBeGreaterThan(2.5);
  const { tracks, events } = await keepTake(context, id);
  expect(tracks.map((t) => t.name)).toEqual(['screen', 'voice']);
  expect(ticksToSeconds(tracks[1]!.duration)).toBeCloseTo(280_000 / 96_000, 2);
  expect(events).toHaveLength(2);
  const footage = await listFootage(context, project);
  expect(footage.map((f) => [f.role, f.facts?.kind])).toEqual([
    ['screen', 'video'],
    ['voice', 'audio'],
  ]);
  const track = await readTrack(context, tracks[0]!.footageId, { width: 320, height: 180 });
  expect(track).toMatchObject({ inPicture: false, samples: [[100, 160, 90]] });
  // Asked again, the same footage is given: nothing is made twice.
  expect((await keepTake(context, id)).tracks).toEqual(tracks);
  expect(await listFootage(context, project)).toHaveLength(2);
});

test('a keep that broke off, and several at once, come to the same footage', async () => {
  const id = takeId();
  await context.db.takes.update({ seenAt: 0 }, { where: { status: 'recording' } });
  await beginTake(context, project, id, null, 'all', setup(screen, voice));
  await addPiece(context, id, 'screen', 0, fragmented(1));
  await addPiece(context, id, 'voice', 0, pcm(1));
  await close(id, 'stopped');
  const finished = finishedPath(id, screen);
  linkSync(finished, `${finished}.handed.mp4`);
  const kept = await Promise.all([
    keepTake(context, id),
    keepTake(context, id),
    keepTake(context, id),
  ]);
  expect(kept[1]).toEqual(kept[0]);
  expect(kept[2]).toEqual(kept[0]);
  const ids = kept[0].tracks.map((t) => t.footageId);
  expect(new Set(ids).size).toBe(2);
  const made = (await listFootage(context, project)).filter((f) => ids.includes(f.id));
  expect(made.map((f) => f.facts?.kind)).toEqual(['video', 'audio']);
});

test('a keep that broke off before its footage was there goes on under the same id', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'voice', setup(voice));
  await addPiece(context, id, 'voice', 0, pcm(1));
  await close(id, 'stopped');
  const { takes } = context.db;
  await takes.update({ footage: '{"voice":"written-before"}' }, { where: { id } });
  const { tracks } = await keepTake(context, id);
  expect(tracks.map((t) => t.footageId)).toEqual(['written-before']);
});

test('what a take’s tracks are is found once, before it is kept', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'voice', setup(voice));
  await addPiece(context, id, 'voice', 0, pcm(1));
  await close(id, 'stopped');
  const { facts } = await probeMedia(finishedPath(id, voice));
  const { PATH } = process.env;
  // Nothing that reads recordings is found while it is kept.
  process.env.PATH = '/nowhere';
  try {
    const { tracks } = await keepTake(context, id);
    expect(tracks[0]).toMatchObject({ name: 'voice', duration: facts.duration });
    const kept = (await listFootage(context, project)).find((f) => f.id === tracks[0]!.footageId);
    expect(kept?.facts).toEqual(facts);
  } finally {
    process.env.PATH = PATH;
  }
});

test('a take that broke off while it was being finished ends with all of its tracks', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'all', setup(screen, voice));
  await addPiece(context, id, 'screen', 0, fragmented(2));
  await addPiece(context, id, 'voice', 0, pcm(2));
  await close(id, 'stopped');
  await context.db.takes.update({ status: 'recording' }, { where: { id } });
  const closed = await close(id, 'stopped');
  expect(closed.seconds).toBeCloseTo(2, 1);
  expect((await keepTake(context, id)).tracks).toHaveLength(2);
});

test('a take that has ended is finished once, and waits for that with all else', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'all', setup(screen, voice));
  const pieces = { screen: fragmented(2), voice: pcm(2) };
  for (const [name, bytes] of Object.entries(pieces)) await addPiece(context, id, name, 0, bytes);
  const ended = await closeTake(context, id, 'stopped');
  expect(ended).toMatchObject({ status: 'closing', live: false, reason: 'stopped' });
  expect(await closeTake(context, id, 'crashed')).toEqual(ended);
  expect(await context.queue.about([id])).toHaveLength(1);
  for (const asked of [
    addPiece(context, id, 'voice', pieces.voice.length, pcm(1)),
    keepTake(context, id),
    setTakeDiscarded(context, id, true),
  ])
    await expect(asked).rejects.toMatchObject({
      code: expect.stringMatching(/^take-(ended|closing)/),
    });
  // Another take can begin meanwhile.
  const next = takeId();
  expect((await beginTake(context, project, next, null, 'voice', setup(voice))).live).toBe(true);
  await context.db.takes.update({ seenAt: 0 }, { where: { id: next } });
  const done = await finish(id);
  expect(done).toMatchObject({ status: 'stopped', reason: 'stopped' });
  expect(done.seconds).toBeCloseTo(2, 1);
});

test('a server that ends while a take is finished goes on with it afterwards', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'all', setup(screen, voice));
  await addPiece(context, id, 'screen', 0, fragmented(2));
  await addPiece(context, id, 'voice', 0, pcm(2));
  await closeTake(context, id, 'stopped');
  expect((await finish(id, AbortSignal.abort())).status).toBe('closing');
  expect((await finish(id)).seconds).toBeCloseTo(2, 1);
  expect((await keepTake(context, id)).tracks).toHaveLength(2);
});

test('a take that can’t be finished is one that broke off, and can be rescued', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'voice', setup(voice));
  await addPiece(context, id, 'voice', 0, pcm(1));
  // A folder stands where the finished sound is to be.
  mkdirSync(join(finishedPath(id, voice), 'in the way'), { recursive: true });
  const log = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  expect(await close(id, 'stopped')).toMatchObject({ status: 'recording', live: false });
  expect(log).toHaveBeenCalledWith(expect.objectContaining({ code: 'EISDIR' }));
  log.mockRestore();
  rmSync(finishedPath(id, voice), { recursive: true });
  const rescued = await close(id, 'crashed');
  expect(rescued).toMatchObject({ status: 'stopped', reason: 'crashed' });
  expect(rescued.seconds).toBeCloseTo(1, 2);
});

test('a take of an id that another project has is refused', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'voice', setup(voice));
  const other = await newProject(context, 'Other', 1280, 720, rateFromNumber(30));
  await expect(beginTake(context, other, id, null, 'voice', setup(voice))).rejects.toMatchObject({
    code: 'take-other-project',
  });
  await close(id, 'stopped');
});

test('a device that ran too fast is brought to the take’s clock', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'all', setup(screen, voice));
  await addPiece(context, id, 'screen', 0, fragmented(6));
  await addPiece(context, id, 'voice', 0, pcm(6));
  const clock = (track: string) =>
    line({ t: 6000, type: 'clock', track, offset: 12, rate: 1.005, pieces: 1, dropped: 0 });
  await addPiece(context, id, 'events', 0, Buffer.from(clock('screen') + clock('voice')));
  await close(id, 'stopped');
  for (const track of [screen, voice]) {
    const { facts } = await probeMedia(finishedPath(id, track));
    expect(Math.abs(ticksToSeconds(facts.duration) - 6.03)).toBeLessThan(0.012);
  }
  const { tracks } = await keepTake(context, id);
  expect(tracks.map((t) => Math.round(ticksToSeconds(t.offset) * 1000))).toEqual([12, 12]);
});

test('nothing recorded is said, not kept', async () => {
  const id = takeId();
  await beginTake(context, project, id, null, 'all', setup(screen, voice));
  await expect(keepTake(context, id)).rejects.toMatchObject({ status: 409 });
  await close(id, 'unplugged');
  await expect(keepTake(context, id)).rejects.toMatchObject({ status: 422 });
});

test('tabs do not record over each other but silent ones, and takes count by step', async () => {
  const { takes } = context.db;
  const first = takeId();
  await beginTake(context, project, first, 'counted', 'voice', setup(voice));
  await expect(
    beginTake(context, project, takeId(), 'counted', 'voice', setup(voice)),
  ).rejects.toMatchObject({ status: 409 });
  // The same tab asking again is answered.
  expect((await beginTake(context, project, first, 'counted', 'voice', setup(voice))).id).toBe(
    first,
  );
  await takes.update({ seenAt: Date.now() - 60_000 }, { where: { id: first } });
  const second = await beginTake(context, project, takeId(), 'counted', 'voice', setup(voice));
  expect(second.number).toBe(2);
  expect((await listTakes(context, project)).find((t) => t.id === first)).toMatchObject({
    status: 'recording',
    live: false,
  });
});

test('discarding is taken back, also of a kept take', async () => {
  const id = takeId();
  await context.db.takes.update({ seenAt: 0 }, { where: { status: 'recording' } });
  await beginTake(context, project, id, null, 'voice', setup(voice));
  await addPiece(context, id, 'voice', 0, pcm(1));
  await expect(setTakeDiscarded(context, id, true)).rejects.toMatchObject({ status: 409 });
  await close(id, 'stopped');
  await setTakeDiscarded(context, id, true);
  expect((await setTakeDiscarded(context, id, false)).status).toBe('stopped');
  await keepTake(context, id);
  await setTakeDiscarded(context, id, true);
  expect((await setTakeDiscarded(context, id, false)).status).toBe('kept');
  expect((await findTake(context, id)).footage).toHaveProperty('voice');
});

test('a piece that could be written only in part does not shift what follows', async () => {
  const id = takeId();
  await context.db.takes.update({ seenAt: 0 }, { where: { status: 'recording' } });
  await beginTake(context, project, id, null, 'voice', setup(voice));
  await addPiece(context, id, 'voice', 0, pcm(1));
  // As a full disk leaves it: the file ends in the middle of a piece.
  const path = join(folder, 'takes', id, 'voice.wav');
  truncateSync(path, statSync(path).size - 1000);
  const size = 96_000 - 1000;
  expect(await addPiece(context, id, 'voice', 96_000, pcm(1))).toBe(size);
  expect(await addPiece(context, id, 'voice', size, pcm(1).subarray(0, 1000))).toBe(96_000);
});
