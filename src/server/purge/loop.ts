import { setTimeout as delay } from 'node:timers/promises';
import type { ServerContext } from '../context';
import { purge } from './purge';

const EVERY_MS = 60 * 60_000;
const FIRST_MS = 30_000;

/** Purges now and then, until asked to stop. */
export async function purgeLoop(
  context: ServerContext,
  stop: AbortSignal,
  onError: (error: unknown) => void,
): Promise<void> {
  let wait = FIRST_MS;
  while (!stop.aborted) {
    await delay(wait, null, { signal: stop }).catch(() => undefined);
    if (stop.aborted) return;
    await purge(context).catch(onError);
    wait = EVERY_MS;
  }
}
