import { setMaxListeners } from 'node:events';
import { availableParallelism, totalmem } from 'node:os';
import { join } from 'node:path';
import Piscina from 'piscina';
import { programRoot } from '../places';
import { Problem } from '../problem';
import { Claims } from './claims';
import type { Segment, SegmentWork } from './segment';
import type { Outcome, ThreadData } from './segment-thread';

/** Memory that a thread with its decoders and its encoder may take, by bytes of its pictures. */
const MEMORY_PICTURES = 120;
const MOST_THREADS = 8;
const TICK_MS = 200;

/** How many segments to render at once: one for each processor, as far as half of the memory goes. */
export function threadsFor({ width, height }: { width: number; height: number }): number {
  const each = (150 << 20) + width * height * 1.5 * MEMORY_PICTURES;
  return Math.max(1, Math.min(availableParallelism(), MOST_THREADS, Math.floor(totalmem() / 2 / each)));
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
  const done = new SharedArrayBuffer(4);
  const count = Math.min(threads, segments.length);
  const pool = new Piscina({
    filename: join(programRoot(), 'dist', 'segment-thread.mjs'),
    workerData: { ...work, segments, claims: Claims.memoryFor(segments.length), done } satisfies ThreadData,
    minThreads: count,
    maxThreads: count,
  });
  // A thread that can't even start says so by an event.
  const broken = new Promise<never>((_, reject) => pool.on('error', reject));
  const failed = new AbortController();
  const stop = AbortSignal.any([signal, failed.signal]);
  setMaxListeners(count + 1, stop);
  const tell = () => onFrames(Atomics.load(new Int32Array(done), 0));
  const timer = setInterval(tell, TICK_MS);
  try {
    signal.throwIfAborted();
    const all = Array.from({ length: count }, async () => {
      const { problem } = (await pool.run(null, { signal: stop })) as Outcome;
      if (problem) throw new Problem(problem.status, problem.message);
    });
    await Promise.race([Promise.all(all), broken]);
    tell();
  } catch (error) {
    failed.abort();
    signal.throwIfAborted();
    throw error;
  } finally {
    clearInterval(timer);
    await pool.destroy();
  }
}
