import { existsSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import type { AnalysisResults, AnalysisView } from '@/contract/analyses';
import { isOf } from '@/core/schema/check-plain';
import { findActivities } from '@/core/telemetry/activity';
import { pointerAt } from '@/core/telemetry/sample';
import type { ScreenSight } from '@/core/vision/screen-sight';
import { SightSoFarSchema } from '@/core/vision/so-far';
import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { addFootage } from '../footage/add';
import { attachTrack } from '../footage/attach-track';
import { loadSources } from '../footage/facts';
import { listFootage } from '../footage/view';
import { completeJob } from '../jobs/complete';
import { workFolder } from '../places';
import { duplicateProject, newProject } from '../projects';
import { makePointed, OPENS, pointedAt } from '../testing/pointed';
import {
  cancelAnalysis,
  listAnalyses,
  queueAnalysis,
  readResult,
  requestAnalysis,
} from './analyses';
import { requestAgain } from './request-again';

const never = new AbortController().signal;
const file = join(folder, 'pointed.mp4');
let context: ServerContext;
let projectId = '';
beforeAll(async () => {
  context = await localContext();
  projectId = await newProject(context, 'Looked at', 1280, 720, { num: 30, den: 1 });
  makePointed(file, 8);
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

async function brought(): Promise<string> {
  const { footageId, jobId } = await addFootage(context, {
    ...{ projectId, path: file, name: 'pointed.mp4', role: 'screen', take: false },
  });
  await completeJob(context, jobId, never);
  return footageId;
}
const view = async (id: string) =>
  (await listFootage(context, projectId)).find((f) => f.id === id)!;

test('a screen recording is looked through as it comes: pointer, presses, words', async () => {
  const id = await brought();
  // It is queued already.
  const asked = await requestAnalysis(context, id, 'screen');
  expect(asked).toMatchObject({ status: 'waiting' });
  const shares: number[] = [];
  const listed: Promise<AnalysisView | undefined>[] = [];
  const find = async () => (await listAnalyses(context, projectId)).find((a) => a.id === asked.id);
  await completeJob(context, asked.jobId!, never, (share) => {
    shares.push(share);
    listed.push(find());
  });
  expect(Math.max(...shares)).toBeGreaterThan(0.5);
  // What was found by then is told while it goes on, and gone when it is whole.
  const soFar = (await Promise.all(listed)).flatMap((row) =>
    row?.status === 'waiting' && isOf(SightSoFarSchema, row.summary.soFar)
      ? [row.summary.soFar]
      : [],
  );
  expect(soFar.length).toBeGreaterThan(0);
  for (const { until, pointer, path } of soFar) {
    expect(until).toBeGreaterThanOrEqual(4000);
    expect(until).toBeLessThanOrEqual(8000);
    expect(pointer).toBeGreaterThan(0.3);
    expect(path.some((place) => place !== null)).toBe(true);
  }
  expect((await find())!.summary).not.toHaveProperty('soFar');
  const sight = JSON.parse(String(await readResult(context, asked.id))) as ScreenSight;
  const { pointer, pages } = sight;
  expect(pointer).toMatchObject({ version: 2, source: 'found', inPicture: true });
  for (let seconds = 0.05; seconds < 7.9; seconds += 0.1) {
    const [found, want] = [pointerAt(pointer!, seconds * 1000), pointedAt(seconds)];
    // A picture shows where it was when it began, up to 40 ms before.
    const before = pointedAt(seconds - 0.04);
    const slack = 4 + Math.hypot(want.x - before.x, want.y - before.y);
    expect(Math.hypot(found.x - want.x, found.y - want.y)).toBeLessThan(slack);
  }
  const presses = findActivities(pointer!).filter(({ kind }) => kind === 'press');
  expect(presses).toHaveLength(1);
  expect(Math.abs(presses[0]!.start - OPENS * 1000)).toBeLessThan(150);
  expect(presses[0]!.confidence).toBeLessThan(1);
  expect(pages[0]!.lines.length).toBeGreaterThanOrEqual(11);
  expect(await view(id)).toMatchObject({ hasPointer: true });
  const { pointers, sights } = await loadSources(context, projectId, new Set([id]));
  expect(pointers[id]).toEqual(pointer);
  expect(sights![id]).toEqual(sight);
  expect(readdirSync(workFolder('analyses'))).toEqual([]);
  // A copy of the project knows it too.
  const copies = await listAnalyses(context, await duplicateProject(context, projectId));
  const copied = copies.find(({ kind }) => kind === 'screen')!;
  expect(copied.footageId).not.toBe(id);
  expect(JSON.parse(String(await readResult(context, copied.id)))).toEqual(sight);
});

let second = '';
test('a track that was recorded stays, whatever is found in the picture', async () => {
  const id = (second = await brought());
  await attachTrack(
    context,
    id,
    JSON.stringify({
      ...{ format: 'vistum-pointer', version: 1, width: 960, height: 540 },
      ...{ samples: [[0, 7, 8]], events: [] },
    }),
  );
  const { jobId } = await requestAnalysis(context, id, 'screen');
  await completeJob(context, jobId!, never);
  const { pointers, sights } = await loadSources(context, projectId, new Set([id]));
  expect(pointers[id]!.samples).toEqual([[0, 7, 8]]);
  expect(sights![id]!.pointer).not.toBeNull();
});

test('a recording that can no longer be read is told, and changes nothing', async () => {
  const id = second;
  const { id: analysis, jobId } = await requestAnalysis(context, id, 'screen', { again: true });
  const row = (await context.db.footage.findByPk(id))!;
  const original = await context.stores.files.path(`footage/${id}/${row.file}`);
  expect(existsSync(original)).toBe(true);
  rmSync(original);
  writeFileSync(original, 'no picture at all');
  await expect(completeJob(context, jobId!, never)).rejects.toMatchObject({ code: 'job-ended' });
  const [told] = (await listAnalyses(context, projectId)).filter((a) => a.id === analysis);
  expect(told).toMatchObject({
    status: 'failed',
    error: expect.stringMatching(/^[A-Z].*\.$/) as string,
  });
  // The track that was there is still the one.
  const { pointers } = await loadSources(context, projectId, new Set([id]));
  expect(pointers[id]!.samples).toEqual([[0, 7, 8]]);
});

test('one that was cancelled leaves nothing, and can be asked for again', async () => {
  const id = second;
  const asked = await requestAnalysis(context, id, 'screen', { again: true });
  await cancelAnalysis(context, asked.id);
  await expect(completeJob(context, asked.jobId!, never)).rejects.toMatchObject({
    code: 'job-ended',
  });
  expect(await requestAnalysis(context, id, 'screen')).toMatchObject({ status: 'waiting' });
});

test('one that is queued anew, as when its file was replaced, takes the place of another', async () => {
  const { db } = context;
  const row = (await db.footage.findByPk(second))!;
  const { jobId } = await db.transact((transaction) =>
    queueAnalysis(context, row, 'screen', transaction),
  );
  const again = await db.transact((transaction) =>
    queueAnalysis(context, row, 'screen', transaction),
  );
  expect(await db.analyses.count({ where: { footageId: second, kind: 'screen' } })).toBe(1);
  expect((await context.queue.find(jobId))!.status).toBe('cancelled');
  expect((await context.queue.find(again.jobId))!.status).toBe('queued');
});

test('the pointer is found again in a stretch, from where it is said to be', async () => {
  const id = await brought();
  const ask = async (at: { readonly x: number; readonly y: number }) => {
    const task = { ...at, ms: 4000, from: 2500, to: 5500 };
    const asked = await requestAgain(context, id, task);
    await completeJob(context, asked.jobId!, never);
    return JSON.parse(
      String(await readResult(context, asked.id)),
    ) as AnalysisResults['pointer-again'];
  };
  const { points } = (await ask(pointedAt(4)))!;
  expect([points[0]![0], points.at(-1)![0]]).toEqual([2500, 5500]);
  for (const [ms, x, y] of points) {
    const [want, before] = [pointedAt(ms / 1000), pointedAt(ms / 1000 - 0.04)];
    const slack = 4 + Math.hypot(want.x - before.x, want.y - before.y);
    expect(Math.hypot(x - want.x, y - want.y)).toBeLessThan(slack);
  }
  // Where nothing is, nothing is made up.
  expect(await ask({ x: 930, y: 20 })).toBeNull();
  expect(() => requestAgain(context, id, undefined)).toThrow('where the pointer is');
});
