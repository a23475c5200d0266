import { wrap } from 'comlink';
import type { HeardTogether } from '@/core/edit/arrange';
import type { MatcherWorker, Heard } from './matcher-worker';

/**
 * Finds which recordings heard the same, and how they lie to each other, in a worker that is ended
 * when it is done.
 */
export async function matchSounds(
  recordings: readonly Heard[],
  signal: AbortSignal,
): Promise<readonly HeardTogether[]> {
  const worker = new Worker(new URL('./matcher-worker.ts', import.meta.url), { type: 'module' });
  try {
    return await new Promise((resolve, reject) => {
      signal.addEventListener('abort', () => reject(signal.reason as Error));
      wrap<MatcherWorker>(worker).match(recordings).then(resolve, reject);
    });
  } finally {
    worker.terminate();
  }
}
