import { availableParallelism, totalmem } from 'node:os';
import { join } from 'node:path';
import { setTimeout as delay } from 'node:timers/promises';
import Piscina from 'piscina';
import { programRoot } from '../places';
import { markedEnvironment } from '../processes/leftovers';
import { pidMemory } from '../processes/noted';
import { problem } from '../problem';
import { Claims } from './claims';
import { HangWatch } from './hang-watch';
import type { Segment, SegmentWork } from './segment-work';
import { throwFailure, type Outcome } from '../outcome';
import type { ThreadData } from './segment-thread';
import { threadState } from './thread-state';

/** Memory that a thread with its decoders and its encoder may take, by bytes of its pictures. */
const MEMORY_PICTURES = 120;
const MOST_THREADS = 8;
/** How long threads may take to end by themselves, with their processes, before they are ended. */
const GRACE_MS = 5000;

/**
 * How many segments to render at once: one for each processor, as far as half of the memory goes.
 */
export function threadsFor({ width, height }: { width: number; height: number }): number {
  const each = (150 << 20) + width * height * 1.5 * MEMORY_PICTURES;
  return Math.max(
    1,
    Math.min(availableParallelism(), MOST_THREADS, Math.floor(totalmem() / 2 / each)),
  );
}

/**
 * Renders segments in worker threads, several at a time.
 *
 * @param onFrames told now and then how many frames are done
 * @throws Problem of the first segment that failed; the others are given up then
 */
export async function renderSegments(
  work: SegmentWork,
  segments: readonly Segment[],
  threads: number,
  signal: AbortSignal,
  onFrames: (done: number) => void,
): Promise<void> {
  if (!segments.length) return;
  const shared = new SharedArrayBuffer(8);
  const pids = pidMemory();
  const { done, stopped } = threadState(shared);
  const count = Math.min(threads, segments.length);
  const pool = new Piscina({
    filename: join(programRoot(), 'dist', 'segment-thread.mjs'),
    workerData: {
      ...work,
      segments,
      claims: Claims.memoryFor(segments.length),
      shared,
      pids,
    } satisfies ThreadData,
    env: markedEnvironment(),
    minThreads: count,
    maxThreads: count,
  });
  // A thread that can't even start says so by an event.
  const broken = new Promise<never>((_, reject) => pool.on('error', reject));
  const aborted = new Promise<never>((_, reject) =>
    signal.addEventListener('abort', reject, { once: true }),
  );
  const frames = () => Atomics.load(done, 0);
  const watch = new HangWatch(pids, frames, onFrames);
  const runs: Promise<Outcome>[] = [];
  try {
    signal.throwIfAborted();
    for (let i = 0; i < count; i++) runs.push(pool.run(null));
    const all = runs.map(async (run) => throwFailure(await run));
    await Promise.race([Promise.all(all), broken, aborted]);
    onFrames(frames());
  } catch (error) {
    // Threads look for this after each picture; for one that waits for a decoder that hangs, the
    // decoder is ended.
    Atomics.store(stopped, 0, 1);
    await Promise.race([
      Promise.allSettled(runs),
      broken.catch(() => {}),
      delay(GRACE_MS, null, { ref: false }),
    ]);
    watch.endAll();
    signal.throwIfAborted();
    throw watch.hung ? problem('media-stands-still') : error;
  } finally {
    watch.stop();
    await pool.destroy();
  }
}
