import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { ServerContext } from '../context';
import { dropOldChanges } from './changes';
import { liveState } from './live';
import { keepRevision } from './revisions';
import { stepsToWrite } from './steps';

/*
 * Writing a document whole after changes to it: not with each save, which would cost what the
 * document costs, but once a person pauses. Until then its changes are in rows of their own.
 */

const PAUSE_MS = 10_000;
/** Somebody who never pauses is interrupted after so many changes. */
const MOST_CHANGES = 60;
const PACKING = { level: 3 };

const pack = promisify<string, { level: number }, Buffer>(gzip);

interface Waiting {
  timer: ReturnType<typeof setTimeout>;
  count: number;
}

const shared = globalThis as { vistumCheckpoints?: Map<string, Waiting> };
const waiting = (): Map<string, Waiting> => (shared.vistumCheckpoints ??= new Map());

/** Writes a project's document whole when nothing was changed for a while. */
export function writeLater(context: ServerContext, id: string): void {
  const before = waiting().get(id);
  if (before) clearTimeout(before.timer);
  const count = (before?.count ?? 0) + 1;
  const ms = count >= MOST_CHANGES ? 0 : PAUSE_MS;
  const timer = setTimeout(() => {
    waiting().delete(id);
    // A connection that was closed meanwhile leaves it to whoever opens the project next.
    if (context.db.isOpen())
      void writeCheckpoint(context, id).catch((error: unknown) => console.error(error));
  }, ms);
  // What is not written whole is put together from its changes when it is opened.
  timer.unref();
  waiting().set(id, { timer, count });
}

/**
 * Writes a project's newest state whole, if it is in memory and was not yet; and keeps it as a
 * revision.
 */
export async function writeCheckpoint(context: ServerContext, id: string): Promise<void> {
  const { projects } = context.db;
  const row = await projects.findOne({
    where: { id, deletedAt: null },
    attributes: ['revision', 'checkpoint'],
  });
  if (!row || row.checkpoint === row.revision) return;
  const { revision } = row;
  const state = liveState(id, revision);
  if (!state) return;
  const document = JSON.stringify(state.project);
  const steps = stepsToWrite(context, id, state.history);
  const packed = await pack(document, PACKING);
  const stands = await context.db.transact(async (transaction) => {
    const [count] = await projects.update(
      { document, done: steps.done, checkpoint: revision },
      // Its age for others is when it was changed, which this is not.
      { where: { id, revision }, silent: true, transaction },
    );
    if (!count) return false;
    await steps.write(transaction);
    await keepRevision(context, id, revision, packed, transaction);
    await dropOldChanges(context, id, revision, transaction);
    return true;
  });
  if (stands) steps.written();
}
