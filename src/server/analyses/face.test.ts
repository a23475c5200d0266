import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = join(folder, 'data');

import type { FacePath } from '@/core/face/follow';
import type { AnalysisResults } from '@/contract/analyses';
import { localContext } from '../context';
import { closeDatabase } from '../db/connection';
import { addFootage } from '../footage/add';
import { completeJob } from '../jobs/complete';
import { newProject } from '../projects';
import { readResult, requestAnalysis } from './analyses';

const never = new AbortController().signal;
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

/** What is found of the face in a recording. */
async function foundIn<K extends 'face' | 'face-path'>(
  path: string,
  kind: K,
): Promise<AnalysisResults[K]> {
  const context = await localContext();
  const projectId = await newProject(context, 'Face', 640, 360, { num: 15, den: 1 });
  const { footageId, jobId } = await addFootage(context, {
    ...{ projectId, path, name: 'camera.mp4', role: 'presenter', take: false },
  });
  await completeJob(context, jobId, never);
  const asked = await requestAnalysis(context, footageId, kind);
  if (asked.jobId) await completeJob(context, asked.jobId, never);
  return JSON.parse(String(await readResult(context, asked.id))) as AnalysisResults[K];
}

const faceIn = (path: string) => foundIn(path, 'face');

test('a face is found where it is, in a recording that lies and in one that stands', async () => {
  const wide = join(folder, 'wide.mp4');
  const tall = join(folder, 'tall.mp4');
  const take = [
    '-ss',
    '1',
    '-t',
    '1.6',
    '-i',
    'demo/media/presenter-take-4.mp4',
    '-an',
    '-r',
    '15',
  ];
  ffmpeg(...take, '-vf', 'scale=640:360', '-preset', 'ultrafast', wide);
  ffmpeg(...take, '-vf', 'crop=404:720:438:0,pad=404:1100:0:300', '-preset', 'ultrafast', tall);
  // The eyes and the mouth of the presenter, whose head is at the middle of the upper half.
  const face = (await faceIn(wide))!;
  expect(face.x).toBeLessThan(0.48);
  expect(face.x + face.width).toBeGreaterThan(0.52);
  expect(face.y).toBeLessThan(0.36);
  expect(face.y + face.height).toBeGreaterThan(0.44);
  expect(face.height).toBeLessThan(0.4);
  const below = (await faceIn(tall))!;
  expect(below.y + below.height / 2).toBeGreaterThan((300 + 0.3 * 720) / 1100);
  expect(below.y + below.height / 2).toBeLessThan((300 + 0.55 * 720) / 1100);
});

test('where there is no face, none is found', async () => {
  const bars = join(folder, 'bars.mp4');
  ffmpeg('-f', 'lavfi', '-i', 'smptebars=s=320x180:r=15:d=1', '-pix_fmt', 'yuv420p', bars);
  expect(await faceIn(bars)).toBeNull();
});

test('a face that goes to the side and stays there is followed once', async () => {
  const goes = join(folder, 'goes.mp4');
  // The camera, not the presenter, moves: 230 of 720 pixels, three seconds after the beginning.
  const moves = "crop=720:720:'if(lt(t,3),400,170)':0,scale=360:360";
  const take = ['-t', '7', '-i', 'demo/media/presenter-take-4.mp4', '-an', '-r', '15'];
  ffmpeg(...take, '-vf', moves, '-preset', 'ultrafast', goes);
  const { face, path } = (await foundIn(goes, 'face-path'))!;
  // Most of the time it is where it went to, so that it begins to the left of that.
  expect(path.map(([ms]) => ms)).toEqual([0, expect.any(Number)]);
  const [[, before, down], [ms, across]] = path as [FacePath[0], FacePath[0]];
  expect(Math.abs(before + 230 / 720)).toBeLessThan(0.03);
  expect(Math.abs(across)).toBeLessThan(0.03);
  expect(Math.abs(down)).toBeLessThan(0.03);
  expect(Math.abs(ms - 3000)).toBeLessThan(700);
  expect(face.x + face.width / 2).toBeGreaterThan(0.5);
});
