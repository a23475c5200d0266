import 'reflect-metadata';
import { setMaxListeners } from 'node:events';
import { setPriority } from 'node:os';
import { setTimeout as delay } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import pino from 'pino';
import type { JobType } from '@/contract/jobs';
import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { limit } from '../limits';
import { sentenceFor } from '../problem';
import { purgeLoop } from '../purge/loop';
import { workLoop } from './runner';

/* The worker process: runs beside the web server and does what takes long. */
// What is done here can wait; what a person is recording or playing at the same time can't.
setPriority(process.pid, 10);
const log = pino({ name: 'worker' });
const stop = new AbortController();
// Each loop listens to it.
setMaxListeners(0, stop.signal);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => stop.abort());
// The starter closes this channel when it dies, however it dies.
process.on('disconnect', () => stop.abort());
const onError = (error: unknown) => log.error(error);

/**
 * Loops that take one kind of job each: several side by side, of which one project has all but one
 * at most.
 */
const LOOPS: Readonly<Record<JobType, number>> = {
  take: 2,
  probe: 2,
  ingest: Math.max(1, limit('jobs')),
  export: 2,
  analysis: 2,
  sight: 1,
  proof: 1,
};

const RETRY_MS = 5000;
let context: ServerContext | null = null;
while (!stop.signal.aborted) {
  try {
    context = await localContext();
    break;
  } catch (error) {
    log.error(sentenceFor(error));
    await delay(RETRY_MS, null, { signal: stop.signal }).catch(() => undefined);
  }
}
if (context) {
  const ready = context;
  log.info('ready');
  const loops = (Object.keys(LOOPS) as JobType[]).flatMap((type) =>
    Array.from({ length: LOOPS[type] }, () =>
      workLoop(
        ready,
        type,
        Math.max(1, LOOPS[type] - 1),
        `${process.pid}-${nanoid(6)}`,
        stop.signal,
        onError,
      ),
    ),
  );
  await Promise.all([...loops, purgeLoop(ready, stop.signal, onError)]);
  await closeDatabase();
}
process.exit(0);
