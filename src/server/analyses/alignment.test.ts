import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import type { Alignment } from '@/core/audio/align';
import { ONSET_RATE } from '@/core/audio/onsets';
import { drifted, elsewhere, talk } from '@/core/audio/testing';
import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { addFootage } from '../footage/add';
import { completeJob } from '../jobs/complete';
import { newProject } from '../projects';
import { readResult } from './analyses';
import { requestAlignment } from './request-alignment';

const never = new AbortController().signal;
let context: ServerContext;
let projectId = '';

/** Writes samples of one channel to a file, by what FFmpeg makes of its name. */
function record(name: string, sound: Float32Array, ...how: string[]): string {
  const raw = join(folder, `${name}.raw`);
  writeFileSync(raw, Buffer.from(Float32Array.from(sound, (s) => s * 0.3).buffer));
  const path = join(folder, name);
  ffmpeg('-f', 'f32le', '-ar', String(ONSET_RATE), '-ac', '1', '-i', raw, ...how, path);
  return path;
}

async function bring(path: string, name: string, into = projectId): Promise<string> {
  const { footageId, jobId } = await addFootage(context, {
    ...{ projectId: into, path, name, role: 'voice', take: false },
  });
  await completeJob(context, jobId, never);
  return footageId;
}

async function aligned(a: string, b: string): Promise<Alignment> {
  const { id, jobId } = await requestAlignment(context, b, a);
  if (jobId) await completeJob(context, jobId, never);
  return JSON.parse(String(await readResult(context, id))) as Alignment;
}

let screen = '';
beforeAll(async () => {
  context = await localContext();
  projectId = await newProject(context, 'Two machines', 640, 360, { num: 25, den: 1 });
  const camera = ['-f', 'lavfi', '-i', 'color=gray:s=64x64:r=25', '-shortest'];
  const path = record('screen.mp4', talk(60, 3), ...camera, '-ar', '48000', '-c:a', 'aac');
  screen = await bring(path, 'screen.mp4');
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

test('two files of other codecs and rates are aligned, with a clock that drifts', async () => {
  const heard = drifted(elsewhere(talk(60, 3).subarray(7.5 * ONSET_RATE), 4), 100);
  const path = record('recorder.ogg', heard, '-ar', '44100', '-c:a', 'libopus', '-ar', '48000');
  const voice = await bring(path, 'recorder.ogg');
  const found = await aligned(screen, voice);
  if (found.kind !== 'aligned') throw new Error(JSON.stringify(found));
  expect(Math.abs(found.offset - 7.5)).toBeLessThan(0.001);
  expect(Math.abs(found.ppm - 100)).toBeLessThan(5);
  // What was found stays found.
  const again = await requestAlignment(context, voice, screen);
  expect(again).toMatchObject({ status: 'ready', jobId: null });
});

test('what did not hear the same, and what can’t, is refused with its reason', async () => {
  const other = await bring(record('other.wav', talk(30, 44)), 'other.wav');
  expect(await aligned(screen, other)).toEqual({ kind: 'unrelated' });
  const mute = await bring(record('mute.wav', new Float32Array(9 * ONSET_RATE)), 'mute.wav');
  expect(await aligned(screen, mute)).toEqual({ kind: 'silent', which: 'second' });
  await expect(requestAlignment(context, other, undefined)).rejects.toThrow('alignWith');
  const elsewhereId = await newProject(context, 'Another', 640, 360, { num: 25, den: 1 });
  const foreign = await bring(record('far.wav', talk(9, 5)), 'far.wav', elsewhereId);
  await expect(requestAlignment(context, foreign, screen)).rejects.toThrow('another project');
  const still = join(folder, 'still.png');
  ffmpeg('-f', 'lavfi', '-i', 'color=gray:s=64x64', '-frames:v', '1', still);
  const silent = await bring(still, 'still.png');
  await expect(requestAlignment(context, screen, silent)).rejects.toThrow('has no sound');
});
