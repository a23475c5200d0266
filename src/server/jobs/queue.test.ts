import { rmSync } from 'node:fs';
import { scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { closeDatabase, database } from '../db/connection';
import { runJob } from './runner';
import { activeJobs, cancelJob, claim, enqueue, finish, heartbeat, putBack } from './queue';

afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(async () => {
  const { jobs } = await database();
  await jobs.destroy({ truncate: true });
});

test('jobs are taken in order, each by one worker only', async () => {
  const ids = [
    await enqueue('ingest', 'p', 'a'),
    await enqueue('ingest', 'p', 'b'),
    await enqueue('export', 'p', 'c'),
  ];
  const taken = await Promise.all(['w1', 'w2', 'w3', 'w4'].map((owner) => claim(owner)));
  expect(taken.flatMap((job) => (job ? [job.id] : [])).sort()).toEqual([...ids].sort());
  expect(await claim('w5')).toBeNull();
});

test('a worker takes only the type it asks for', async () => {
  await enqueue('export', 'p', 'x');
  expect(await claim('w', { type: 'ingest' })).toBeNull();
  expect((await claim('w', { type: 'export' }))?.subject).toBe('x');
});

test('a job whose worker fell silent goes to another; the first one notices', async () => {
  const { jobs } = await database();
  const id = await enqueue('export', 'p', 'x');
  await claim('first');
  expect(await claim('second')).toBeNull();
  await jobs.update({ leaseUntil: Date.now() - 1 }, { where: { id } });
  expect((await claim('second'))?.attempts).toBe(2);
  expect(await heartbeat(id, 'first', 0.5, 'going on')).toBe(false);
  expect(await heartbeat(id, 'second', 0.5, 'going on')).toBe(true);
  expect(await activeJobs('p')).toEqual([
    { type: 'export', subject: 'x', progress: 0.5, message: 'going on' },
  ]);
});

test('after three interruptions a job is given up with a sentence', async () => {
  const { jobs } = await database();
  const id = await enqueue('export', 'p', 'x');
  for (let i = 0; i < 3; i++) {
    expect(await claim(`w${i}`)).not.toBeNull();
    await jobs.update({ leaseUntil: Date.now() - 1 }, { where: { id } });
  }
  const job = (await claim('w4'))!;
  expect(job.attempts).toBe(4);
  await runJob(job, 'w4', new AbortController().signal);
  await job.reload();
  expect(job.status).toBe('failed');
  expect(job.message).toMatch(/interrupted three times/);
});

test('a job that is put back by a worker that stops counts as untried', async () => {
  const id = await enqueue('export', 'p', 'x');
  for (let i = 0; i < 5; i++) {
    expect((await claim('w'))?.attempts).toBe(1);
    await putBack(id, 'w');
  }
});

test('a cancelled job stays cancelled, whatever its worker says', async () => {
  const { jobs } = await database();
  const id = await enqueue('export', 'p', 'x');
  await claim('w');
  await cancelJob(id);
  expect(await heartbeat(id, 'w', 0.9, 'still here')).toBe(false);
  expect(await finish(id, 'w', 'done', 'Done')).toBe(false);
  expect((await jobs.findByPk(id))?.status).toBe('cancelled');
});
