import type { FollowTask } from '@/contract/analyses';
import type { MediaFacts } from '@/contract/footage';
import { followWay, type Direction, type FollowedWay } from '@/sight/follow-path';
import { lumaRecording } from '../media/luma-recording';
import { loadKernels } from '../media/node-host';
import { processesGone } from '../media/pipe';
import { DONE, outcomeOf, type Outcome } from '../outcome';

/* A worker thread that follows content in one direction. */

/** What is to be followed, in which recording. */
export interface WayOrder {
  readonly path: string;
  readonly facts: MediaFacts;
  readonly task: FollowTask;
  readonly direction: Direction;
  /** A word that counts the pictures that were looked at. */
  readonly done: SharedArrayBuffer;
}

/** What came of it; `way` is null where nothing could be told again. */
export interface WayAnswer {
  readonly outcome: Outcome;
  readonly way: FollowedWay | null;
}

export default async function work(order: WayOrder): Promise<WayAnswer> {
  const { path, facts, task, direction } = order;
  const done = new Int32Array(order.done);
  try {
    const heap = await loadKernels();
    const recording = lumaRecording(path, facts);
    const way = followWay(heap, task, task, recording, direction, () => Atomics.add(done, 0, 1));
    return { outcome: DONE, way };
  } catch (error) {
    return { outcome: outcomeOf(error), way: null };
  } finally {
    await processesGone();
  }
}
