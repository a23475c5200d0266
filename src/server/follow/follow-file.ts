import { join } from 'node:path';
import Piscina from 'piscina';
import type { FollowTask } from '@/contract/analyses';
import type { MediaFacts } from '@/contract/footage';
import type { FollowPath } from '@/core/callout/follow-path';
import { followedPath, picturesOf, type Direction } from '@/sight/follow-path';
import { lumaRecording } from '../media/luma-recording';
import { throwFailure } from '../outcome';
import { programRoot } from '../places';
import { markedEnvironment } from '../processes/leftovers';
import type { WayAnswer, WayOrder } from './follow-thread';

const TOLD_MS = 250;

/**
 * Follows what a part of a recording's file shows from where it was marked, onwards and back at the
 * same time.
 *
 * @param onProgress is told now and then the share that is done, 0 to 1
 * @returns null if nothing of it could be told again
 * @throws Problem, `Interrupted` as reading its pictures does
 */
export async function followFile(
  path: string,
  facts: MediaFacts,
  task: FollowTask,
  onProgress: (share: number) => void,
): Promise<FollowPath | null> {
  const recording = lumaRecording(path, facts);
  const count = (direction: Direction) => picturesOf(task, recording.rate, direction);
  const all = Math.max(1, count('onwards') + count('back'));
  const done = new SharedArrayBuffer(Int32Array.BYTES_PER_ELEMENT);
  const directions: Direction[] = count('back') ? ['onwards', 'back'] : ['onwards'];
  const pool = new Piscina({
    filename: join(programRoot(), 'dist', 'follow-thread.mjs'),
    env: markedEnvironment(),
    minThreads: directions.length,
    maxThreads: directions.length,
  });
  const telling = setInterval(
    () => onProgress(Math.min(1, Atomics.load(new Int32Array(done), 0) / all)),
    TOLD_MS,
  );
  try {
    const [onwards, back] = await Promise.all(
      directions.map(async (direction) => {
        const order: WayOrder = { path, facts, task, direction, done };
        const { outcome, way } = (await pool.run(order)) as WayAnswer;
        throwFailure(outcome);
        return way;
      }),
    );
    return onwards ? followedPath(task, recording, onwards, back ?? null) : null;
  } finally {
    clearInterval(telling);
    await pool.destroy();
  }
}
