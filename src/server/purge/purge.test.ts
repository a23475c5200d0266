import {
  existsSync,
  mkdirSync,
  readdirSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { doEdit, EMPTY_HISTORY } from '@/core/edit/history';
import { placeFootage } from '@/core/edit/place';
import { closeDatabase } from '../db/connection';
import { openProject, saveProject } from '../documents/documents';
import { requestExport } from '../export/job';
import { DEFAULT_SETTINGS } from '../export/settings';
import { addFootage } from '../footage/add';
import { setFootageDeleted } from '../footage/change';
import { loadFacts } from '../footage/facts';
import { footageFolder } from '../testing/stored';
import { findServedFootage } from '../footage/view';
import { newId } from '../ids';
import { completeJob } from '../jobs/complete';
import { duplicateProject, newProject, setProjectDeleted } from '../projects';
import { bringBack, listDeleted } from './deleted';
import { purge } from './purge';
import { diskUsage } from './usage';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const DAY = 86_400_000;
const rate = { num: 30, den: 1 };
const path = join(folder, 'a.mp4');
beforeAll(() => {
  ffmpeg(...['-f', 'lavfi', '-i', 'testsrc=s=320x240:r=30:d=1', '-pix_fmt', 'yuv420p', path]);
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

async function withFootage(name: string) {
  const projectId = await newProject(context, name, 1280, 720, rate);
  const { footageId, jobId } = await addFootage(context, {
    ...{ projectId, path, name: 'a.mp4', role: 'screen', take: false },
  });
  await completeJob(context, jobId, new AbortController().signal);
  return { projectId, footageId };
}
const later = (days: number) => Date.now() + days * DAY;
const aged = (file: string, days: number) =>
  utimesSync(file, new Date(Date.now() - days * DAY), new Date(Date.now() - days * DAY));

test('a deleted project serves nothing, ends its work, comes back, and goes for good after the grace time', async () => {
  const { projectId, footageId } = await withFootage('Gone');
  const copy = await duplicateProject(context, projectId);
  const open = await openProject(context, projectId);
  const facts = await loadFacts(context, projectId);
  const placed = doEdit(open, 'Place', (draft) => {
    placeFootage(draft, facts[footageId]!, 0, newId);
  });
  await saveProject(context, projectId, placed.project, placed.history, open.revision);
  const settings = { ...DEFAULT_SETTINGS, width: 320, height: 240, frameRate: rate };
  const { exportId, jobId } = await requestExport(context, projectId, settings);
  await setProjectDeleted(context, projectId, true);
  const { jobs, projects, exports } = context.db;
  expect((await jobs.findByPk(jobId))?.status).toBe('cancelled');
  expect(await context.queue.claim('w', { id: jobId })).toBeNull();
  await expect(findServedFootage(context, footageId)).rejects.toMatchObject({ status: 404 });
  expect(await listDeleted(context)).toEqual([
    expect.objectContaining({ kind: 'project', id: projectId, name: 'Gone' }),
  ]);
  await bringBack(context, 'project', projectId);
  expect((await findServedFootage(context, footageId)).id).toBe(footageId);
  await setProjectDeleted(context, projectId, true);
  expect(await purge(context, later(6))).toMatchObject({ projects: 0 });
  expect(existsSync(footageFolder(footageId))).toBe(true);
  expect(await purge(context, later(8))).toMatchObject({ projects: 1 });
  expect(readdirSync(join(folder, 'footage'))).not.toContain(footageId);
  expect([await projects.findByPk(projectId), await exports.findByPk(exportId)]).toEqual([
    null,
    null,
  ]);
  await expect(bringBack(context, 'project', projectId)).rejects.toMatchObject({ status: 410 });
  // The copy has the same bytes under names of its own.
  const left = Object.keys(await loadFacts(context, copy));
  expect(existsSync(join(footageFolder(left[0]!), 'proxy.mp4'))).toBe(true);
});

test('what is deleted while it is prepared is let go, and prepared when it comes back', async () => {
  const { jobs } = context.db;
  const projectId = await newProject(context, 'In the middle', 1280, 720, rate);
  const { footageId, jobId } = await addFootage(context, {
    ...{ projectId, path, name: 'a.mp4', role: 'screen', take: false },
  });
  const waiting = () => jobs.count({ where: { subject: footageId, status: 'queued' } });
  await setFootageDeleted(context, footageId, true);
  await setFootageDeleted(context, footageId, true);
  expect([(await jobs.findByPk(jobId))?.status, await waiting()]).toEqual(['cancelled', 0]);
  await bringBack(context, 'footage', footageId);
  expect(await waiting()).toBe(1);
  await setProjectDeleted(context, projectId, true);
  expect(await waiting()).toBe(0);
  await bringBack(context, 'project', projectId);
  expect(await waiting()).toBe(1);
});

test('deleted footage goes only when neither document, history nor a revision names it', async () => {
  const { projectId, footageId } = await withFootage('Uses');
  const facts = await loadFacts(context, projectId);
  const open = await openProject(context, projectId);
  const placed = doEdit(open, 'Place', (draft) => {
    placeFootage(draft, facts[footageId]!, 0, newId);
  });
  await saveProject(context, projectId, placed.project, EMPTY_HISTORY, open.revision);
  await setFootageDeleted(context, footageId, true);
  expect(await purge(context, later(30))).toMatchObject({ footage: 0 });
  await saveProject(context, projectId, open.project, EMPTY_HISTORY, open.revision + 1);
  expect(await purge(context, later(30))).toMatchObject({ footage: 0 });
  const { revisions } = context.db;
  await revisions.destroy({ where: { projectId } });
  expect(await purge(context, later(6))).toMatchObject({ footage: 0 });
  expect(await purge(context, later(30))).toMatchObject({ footage: 1 });
  await expect(bringBack(context, 'footage', footageId)).rejects.toMatchObject({ status: 410 });
});

test('uploads that were broken off and folders that nothing refers to go when they are old', async () => {
  const stray = join(folder, 'footage', 'nobody');
  const upload = join(folder, 'uploads', 'half');
  for (const [one, days] of [
    [stray, 9],
    [`${stray}-young`, 1],
  ] as const) {
    mkdirSync(one, { recursive: true });
    aged(one, days);
  }
  mkdirSync(join(folder, 'uploads'), { recursive: true });
  writeFileSync(upload, 'half a recording');
  writeFileSync(`${upload}-young`, 'half a recording');
  aged(upload, 9);
  const { footageId } = await withFootage('Stays');
  aged(footageFolder(footageId), 9);
  expect(await purge(context)).toEqual({ projects: 0, footage: 0, takes: 0, files: 2 });
  expect([stray, upload].map(existsSync)).toEqual([false, false]);
  expect([`${stray}-young`, `${upload}-young`, footageFolder(footageId)].map(existsSync)).toEqual([
    true,
    true,
    true,
  ]);
});

test('the grace time is a setting', async () => {
  const id = await newProject(context, 'Short grace', 1280, 720, rate);
  await setProjectDeleted(context, id, true);
  process.env.VISTUM_KEEP_DAYS = '2';
  expect(await purge(context, later(3))).toMatchObject({ projects: 1 });
  delete process.env.VISTUM_KEEP_DAYS;
});

test('the disk that projects take is what their folders hold; what copies share counts once', async () => {
  const { projectId, footageId } = await withFootage('Disk');
  const copy = await duplicateProject(context, projectId);
  const bytes = readdirSync(footageFolder(footageId))
    .map((name) => statSync(join(footageFolder(footageId), name)).size)
    .reduce((sum, size) => sum + size, 0);
  const { projects, used, free } = await diskUsage(context);
  expect([projects[projectId], projects[copy]]).toEqual([bytes, bytes]);
  expect(used).toBeLessThan(Object.values(projects).reduce((sum, n) => sum + n, 0));
  expect(free).toBeGreaterThan(0);
});
