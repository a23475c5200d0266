import { execFileSync, spawn } from 'node:child_process';
import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = join(folder, 'data');

import { closeDatabase } from '../db/connection';
import { addFootage } from '../footage/add';
import { workFolder } from '../places';
import { newProject } from '../projects';
import { endLeftovers, JOB_MARK } from '../processes/leftovers';
import { LEASE_MS } from './database-queue';
import { runJob } from './runner';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const never = new AbortController().signal;
const path = join(folder, 'recording.mp4');
beforeAll(() => {
  ffmpeg(
    ...['-f', 'lavfi', '-i', 'testsrc2=s=1280x720:r=30:d=20', '-c:v', 'libx264'],
    ...['-preset', 'ultrafast', '-pix_fmt', 'yuv420p', path],
  );
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});
afterEach(() => jest.restoreAllMocks());

const bring = async () => {
  const projectId = await newProject(context, 'Jobs', 1280, 720, { num: 30, den: 1 });
  const { footageId, jobId: probing } = await addFootage(context, {
    projectId,
    path,
    name: 'recording.mp4',
    role: 'screen',
    take: false,
  });
  // Looked at, it waits to be prepared.
  await runJob(context, (await context.queue.claim('w', { id: probing }))!, never);
  const jobs = await context.queue.about([footageId]);
  return { footageId, jobId: jobs.find(({ type }) => type === 'ingest')!.id };
};
const jobOf = async (id: string) => (await context.db.jobs.findByPk(id))!;
const footageOf = async (id: string) => (await context.db.footage.findByPk(id))!;
const children = () =>
  readFileSync(`/proc/self/task/${process.pid}/children`, 'utf8')
    .split(' ')
    .filter(Boolean)
    .map((pid) => ({ pid: Number(pid), command: readFileSync(`/proc/${pid}/cmdline`, 'latin1') }));
/** Waits for what is asked for, and gives it: asked once more it may be gone by then. */
const until = async <T>(what: () => T | Promise<T>): Promise<NonNullable<T>> => {
  for (const end = Date.now() + 30_000; ;) {
    const found = await what();
    if (found) return found;
    if (Date.now() > end) throw new Error('It did not come to that');
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
};
// A program that turns into another (nice, then FFmpeg) has no command line for a moment.
const encoding = () => children().find(({ command }) => command.includes('proxy.mp4'));

test('an FFmpeg that the system ends blames no file: the job is tried again, and ends well', async () => {
  const { footageId, jobId } = await bring();
  const running = runJob(context, (await context.queue.claim('w', { id: jobId }))!, never);
  process.kill((await until(encoding)).pid, 'SIGKILL');
  await running;
  expect(await jobOf(jobId)).toMatchObject({ status: 'queued', attempts: 1 });
  expect(await footageOf(footageId)).toMatchObject({ status: 'waiting', error: null });
  // It is not taken up at once.
  expect(await context.queue.claim('w', { id: jobId })).toBeNull();
  await context.db.jobs.update({ leaseUntil: 0 }, { where: { id: jobId } });
  await runJob(context, (await context.queue.claim('w', { id: jobId }))!, never);
  expect((await jobOf(jobId)).status).toBe('done');
  expect((await footageOf(footageId)).status).toBe('ready');
  expect(readdirSync(workFolder('ingest'))).toEqual([]);
});

test('a worker that lost its lease ends nothing of the job that another has by now', async () => {
  const { footageId, jobId } = await bring();
  const first = (await context.queue.claim('first', { id: jobId }))!;
  const running = runJob(context, first, never);
  await until(encoding);
  await context.db.jobs.update({ leaseUntil: 0 }, { where: { id: jobId } });
  expect((await context.queue.claim('second', { id: jobId }))?.attempts).toBe(2);
  await running;
  expect(await jobOf(jobId)).toMatchObject({ status: 'running', owner: 'second' });
  expect(await footageOf(footageId)).toMatchObject({ status: 'waiting', error: null });
  expect(await context.queue.complete(first)).toBe(false);
});

test('heartbeats that are not heard end the work before the lease is another’s', async () => {
  const { footageId, jobId } = await bring();
  const job = (await context.queue.claim('w', { id: jobId }))!;
  const { jobs } = context.db;
  jest.spyOn(jobs, 'update').mockRejectedValue(new Error('no database'));
  const now = Date.now();
  const clock = jest.spyOn(Date, 'now').mockReturnValue(now);
  const running = runJob(context, job, never);
  await until(encoding);
  clock.mockReturnValue(now + LEASE_MS - 2000);
  await running;
  expect(await jobOf(jobId)).toMatchObject({ status: 'running', attempts: 1 });
  expect((await footageOf(footageId)).status).toBe('waiting');
});

test('what came of a job counts together with its end, or not at all', async () => {
  const { jobs, footage } = context.db;
  const { footageId, jobId } = await bring();
  const job = (await context.queue.claim('w', { id: jobId }))!;
  const fails = context.queue.complete(job, async (transaction) => {
    await footage.update({ name: 'changed' }, { where: { id: footageId }, transaction });
    throw new Error('broken off');
  });
  await expect(fails).rejects.toThrow(/broken off/);
  expect((await jobs.findByPk(jobId))?.status).toBe('running');
  expect((await footageOf(footageId)).name).toBe('recording.mp4');
});

test('a job that takes longer than it may is ended, and says so', async () => {
  process.env.VISTUM_MAX_INGEST_SECONDS = '0.05';
  const { footageId, jobId } = await bring();
  await runJob(context, (await context.queue.claim('w', { id: jobId }))!, never);
  delete process.env.VISTUM_MAX_INGEST_SECONDS;
  expect((await jobOf(jobId)).message).toMatch(/not done within an hour/);
  expect((await footageOf(footageId)).status).toBe('failed');
});

test('no project waits for all of another’s jobs', async () => {
  const { jobs } = context.db;
  await jobs.destroy({ truncate: true });
  for (const project of ['many', 'many', 'many', 'many', 'few'])
    await context.queue.enqueue('ingest', project, 'x');
  const most = { type: 'ingest', mostOfOneProject: 2 } as const;
  const taken = [];
  for (let i = 0; i < 5; i++)
    taken.push((await context.queue.claim(`w${i}`, most))?.projectId ?? null);
  expect(taken).toEqual(['many', 'few', 'many', null, null]);
});

test('processes of an attempt whose worker is gone are ended by the next', async () => {
  const left = JOB_MARK.run('job-left-over', () =>
    spawn('sleep', ['60'], { env: { ...process.env, VISTUM_JOB: 'job-left-over' } }),
  );
  const other = spawn('sleep', ['60'], { env: { ...process.env, VISTUM_JOB: 'job-left' } });
  const gone = new Promise((resolve) => left.on('close', (_code, signal) => resolve(signal)));
  await until(() => readFileSync(`/proc/${left.pid}/cmdline`, 'utf8').startsWith('sleep'));
  expect(await endLeftovers('job-left-over')).toBe(1);
  expect(await gone).toBe('SIGKILL');
  expect(other.exitCode).toBeNull();
  other.kill();
});

test('FFmpeg ends with the process that started it, however that ends', async () => {
  const script = `
    const { spawn } = require('node:child_process');
    const [command, ...args] = JSON.parse(process.argv[1]);
    console.log(spawn(command, args, { stdio: 'ignore' }).pid);
    setInterval(() => {}, 1000);`;
  const { limitedCommand } = await import('../processes/limited');
  const input = ['-re', '-f', 'lavfi', '-i', 'testsrc2', '-f', 'null', '-'];
  const [command, args] = limitedCommand('ffmpeg', input, { memory: 1 << 30 });
  const parent = spawn(process.execPath, ['-e', script, JSON.stringify([command, ...args])]);
  const pid = await new Promise<string>((resolve) =>
    parent.stdout.once('data', (data: Buffer) => resolve(data.toString().trim())),
  );
  const name = () => {
    try {
      return execFileSync('ps', ['-o', 'comm=,stat=', '-p', pid]).toString().trim();
    } catch {
      return 'gone';
    }
  };
  await until(() => name().startsWith('ffmpeg'));
  parent.kill('SIGKILL');
  await until(() => /gone|Z/.test(name()));
});
