import 'reflect-metadata';
import { setPriority } from 'node:os';
import { nanoid } from 'nanoid';
import pino from 'pino';
import { closeDatabase, database } from '../db/connection';
import { workLoop } from './runner';

/* The worker process: runs beside the web server and does what takes long. */
// What is done here can wait; what a person is recording or playing at the same time can't.
setPriority(process.pid, 10);
const log = pino({ name: 'worker' });
const owner = `${process.pid}-${nanoid(6)}`;
const stop = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => stop.abort());
// The starter closes this channel when it dies, however it dies.
process.on('disconnect', () => stop.abort());

await database();
log.info('ready');
// Ingest and export side by side: an upload need not wait for a long render.
await Promise.all(
  (['ingest', 'export'] as const).map((type) =>
    workLoop(type, owner, stop.signal, (error) => log.error(error)),
  ),
);
await closeDatabase();
process.exit(0);
