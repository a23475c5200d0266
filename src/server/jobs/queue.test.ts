import { rmSync } from 'node:fs';
import { scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { runJob } from './runner';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(() => context.db.jobs.destroy({ truncate: true }));

/** Puts a job in, and takes it. */
const taken = async (owner = 'w') => {
  await context.queue.enqueue('export', 'p', 'x');
  return (await context.queue.claim(owner))!;
};
const fallSilent = (id: string) =>
  context.db.jobs.update({ leaseUntil: Date.now() - 1 }, { where: { id } });

test('jobs are taken in order, each by one worker only', async () => {
  const { queue } = context;
  const ids = [
    await queue.enqueue('ingest', 'p', 'a'),
    await queue.enqueue('ingest', 'p', 'b'),
    await queue.enqueue('export', 'p', 'c'),
  ];
  const all = await Promise.all(['w1', 'w2', 'w3', 'w4'].map((owner) => queue.claim(owner)));
  expect(all.flatMap((job) => (job ? [job.id] : [])).sort()).toEqual([...ids].sort());
  expect(await queue.claim('w5')).toBeNull();
});

test('a worker takes only the type it asks for', async () => {
  const { queue } = context;
  await queue.enqueue('export', 'p', 'x');
  expect(await queue.claim('w', { type: 'ingest' })).toBeNull();
  expect((await queue.claim('w', { type: 'export' }))?.subject).toBe('x');
});

test('a job whose worker fell silent goes to another; the first one notices', async () => {
  const { queue } = context;
  const first = await taken('first');
  expect(await queue.claim('second')).toBeNull();
  await fallSilent(first.id);
  const second = (await queue.claim('second'))!;
  expect(second.attempts).toBe(2);
  expect(await queue.beat(first, 0.5, 'going on')).toBe(false);
  expect(await queue.beat(second, 0.5, 'going on')).toBe(true);
  expect(await queue.active('p')).toEqual([
    { type: 'export', subject: 'x', progress: 0.5, message: 'going on' },
  ]);
});

test('only the owner ends a job, whichever way', async () => {
  const { queue } = context;
  const first = await taken('first');
  await fallSilent(first.id);
  const second = (await queue.claim('second'))!;
  const outcome = jest.fn(() => Promise.resolve());
  expect(await queue.complete(first, outcome)).toBe(false);
  expect(await queue.fail(first, 'No.', outcome)).toBe(false);
  await queue.putBack(first);
  await queue.tryAgain(first, 'Once more');
  expect(outcome).not.toHaveBeenCalled();
  expect(await queue.find(first.id)).toMatchObject({ status: 'running', attempts: 2 });
  expect(await queue.complete(second, outcome)).toBe(true);
  expect(outcome).toHaveBeenCalledTimes(1);
  expect(await queue.about(['x'])).toMatchObject([{ id: first.id, status: 'done', progress: 1 }]);
});

test('after three interruptions a job is given up with a sentence', async () => {
  const { queue } = context;
  const { id } = await taken();
  for (let i = 0; i < 2; i++) {
    await fallSilent(id);
    expect(await queue.claim(`w${i}`)).not.toBeNull();
  }
  await fallSilent(id);
  const job = (await queue.claim('w4'))!;
  expect(job.attempts).toBe(4);
  await runJob(context, job, new AbortController().signal);
  const ended = (await queue.find(id))!;
  expect(ended.status).toBe('failed');
  expect(ended.message).toMatch(/interrupted three times/);
});

test('a job that is put back by a worker that stops counts as untried', async () => {
  const { queue } = context;
  await queue.enqueue('export', 'p', 'x');
  for (let i = 0; i < 5; i++) {
    const job = (await queue.claim('w'))!;
    expect(job.attempts).toBe(1);
    await queue.putBack(job);
  }
});

test('a cancelled job stays cancelled, whatever its worker says', async () => {
  const { queue } = context;
  const job = await taken();
  await queue.cancel(job.id);
  expect(await queue.beat(job, 0.9, 'still here')).toBe(false);
  expect(await queue.complete(job)).toBe(false);
  expect((await queue.find(job.id))?.status).toBe('cancelled');
});

test('what is put in with something else is there only if that is', async () => {
  const { queue, db } = context;
  const broken = db.transact(async (transaction) => {
    await queue.enqueue('ingest', 'p', 'y', transaction);
    throw new Error('broken off');
  });
  await expect(broken).rejects.toThrow(/broken off/);
  expect(await queue.about(['y'])).toEqual([]);
});
