import { copyFileSync, existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = join(folder, 'data');

import { placeFootage } from '@/core/edit/place';
import { doEdit } from '@/core/edit/history';
import { loadImage, createCanvas } from '@napi-rs/canvas';
import { closeDatabase } from '../db/connection';
import { openProject, saveProject } from '../documents/documents';
import { addFootage } from '../footage/add';
import { attachTrack } from '../footage/attach-track';
import { loadFacts } from '../footage/facts';
import { relinkFootage } from '../footage/relink';
import { newId } from '../ids';
import { completeJob } from '../jobs/complete';
import { dataFolder } from '../places';
import { newProject } from '../projects';
import { cancelExport, exportedFile, findExport, requestExport } from './job';
import { readManifest, taskOf } from './manifest';
import { DEFAULT_SETTINGS } from './settings';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const rate = { num: 30, den: 1 };
const SETTINGS = {
  ...{ ...DEFAULT_SETTINGS, format: 'png' as const },
  ...{ width: 320, height: 180, frameRate: rate, range: { start: 0.5, end: 0.6 } },
};
const never = new AbortController().signal;
const colored = (color: string) => join(folder, `${color}.mp4`);

beforeAll(() => {
  for (const color of ['red', 'blue'])
    ffmpeg(
      ...['-f', 'lavfi', '-i', `color=${color}:s=320x180:r=30:d=2`, '-c:v', 'libx264'],
      ...['-preset', 'ultrafast', '-pix_fmt', 'yuv420p', colored(color)],
    );
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

/** A project with a red recording in it. */
async function red() {
  const projectId = await newProject(context, 'Red', 320, 180, rate);
  const { footageId, jobId } = await addFootage(context, {
    ...{ projectId, path: colored('red'), name: 'red.mp4', role: 'screen', take: false },
  });
  await completeJob(context, jobId, never);
  const open = await openProject(context, projectId);
  const facts = await loadFacts(context, projectId);
  const placed = doEdit(open, 'Place', (draft) => {
    placeFootage(draft, facts[footageId]!, 0, newId);
  });
  await saveProject(context, projectId, placed.project, placed.history, open.revision);
  return { projectId, footageId };
}

async function relinkToBlue(projectId: string, footageId: string) {
  const sent = join(folder, 'sent');
  copyFileSync(colored('blue'), sent);
  await relinkFootage(context, projectId, footageId, sent, 'blue.mp4');
}

async function middle(exportId: string) {
  const image = await loadImage(
    await context.stores.files.path(exportedFile(await findExport(context, exportId))),
  );
  const canvas = createCanvas(image.width, image.height).getContext('2d');
  canvas.drawImage(image, 0, 0);
  return [...canvas.getImageData(160, 90, 1, 1).data];
}

const inputs = (exportId: string) => join(dataFolder('exports', exportId), 'inputs');

test('an export shows what was there when it was asked for, whatever is put in its place', async () => {
  const { projectId, footageId } = await red();
  const { exportId, jobId } = await requestExport(context, projectId, SETTINGS);
  await relinkToBlue(projectId, footageId);
  // Two attempts read the same: the first is given back, as by a worker that is asked to stop.
  await context.queue.putBack((await context.queue.claim('w', { id: jobId }))!);
  await completeJob(context, jobId, never);
  const [r, g, b] = await middle(exportId);
  expect(r).toBeGreaterThan(230);
  expect(g! + b!).toBeLessThan(40);
  expect(existsSync(inputs(exportId))).toBe(false);
  const later = await requestExport(context, projectId, SETTINGS);
  await completeJob(context, later.jobId, never);
  expect((await middle(later.exportId))[2]).toBeGreaterThan(230);
});

test('the pointer track of that moment belongs to it', async () => {
  const { projectId, footageId } = await red();
  const track = (x: number) =>
    JSON.stringify({
      ...{ format: 'vistum-pointer', version: 1, width: 320, height: 180 },
      ...{ samples: [[0, x, 5]], events: [] },
    });
  await attachTrack(context, footageId, track(10));
  const { exportId } = await requestExport(context, projectId, SETTINGS);
  await attachTrack(context, footageId, track(200));
  const { exports } = context.db;
  const row = (await exports.findByPk(exportId))!;
  const manifest = await readManifest(context, exportId, projectId, row.document);
  const task = await taskOf(context, exportId, manifest, SETTINGS, rate);
  expect(task.sources.pointers[footageId]!.samples[0]![1]).toBe(10);
});

test('a missing recording is named; a cancelled export lets go of what it held', async () => {
  const { projectId, footageId } = await red();
  const { exportId } = await requestExport(context, projectId, SETTINGS);
  expect(existsSync(inputs(exportId))).toBe(true);
  await cancelExport(context, exportId);
  expect(existsSync(inputs(exportId))).toBe(false);
  const { footage } = context.db;
  const row = (await footage.findByPk(footageId))!;
  rmSync(join(dataFolder('footage', footageId), row.file));
  const gone = await requestExport(context, projectId, SETTINGS);
  await expect(completeJob(context, gone.jobId, never)).rejects.toThrow(/red\.mp4.* is missing/);
});

test('an export that was asked for before there were manifests is rendered all the same', async () => {
  const { projectId } = await red();
  const { exportId, jobId } = await requestExport(context, projectId, SETTINGS);
  const { exports } = context.db;
  const { project } = await openProject(context, projectId);
  rmSync(inputs(exportId), { recursive: true });
  await exports.update({ document: JSON.stringify(project) }, { where: { id: exportId } });
  await completeJob(context, jobId, never);
  expect((await middle(exportId))[0]).toBeGreaterThan(230);
});
