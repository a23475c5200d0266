import { rateFromNumber, type FrameRate } from '@/core/time/ticks';

/** When the frames of a recording are shown, summed up. */
export interface Timing {
  /** Frames. */
  readonly count: number;
  /** Seconds. */
  readonly duration: number;
  readonly rate: FrameRate;
  readonly variable: boolean;
}

const DEFAULT_RATE = 30;

/** Rate, length and evenness of frames from their times in seconds, in any order. */
export function timingOf(unsorted: readonly number[], lastLength: number): Timing {
  const times = Float64Array.from(unsorted).sort();
  const count = times.length;
  if (count < 2) {
    const length = lastLength > 0 ? lastLength : 1 / DEFAULT_RATE;
    return { count, duration: length, rate: { num: DEFAULT_RATE, den: 1 }, variable: false };
  }
  const gaps = times.subarray(1).map((t, i) => t - times[i]!);
  const sorted = gaps.slice().sort();
  const median = sorted[sorted.length >> 1]!;
  const span = times[count - 1]! - times[0]!;
  // Containers round times to a millisecond or so; more than that, in more than a few frames, is a
  // varying rate.
  const least = Math.max(0.0025, median * 0.12);
  const odd = gaps.reduce((sum, gap) => sum + (Math.abs(gap - median) > least ? 1 : 0), 0);
  const variable = odd > Math.max(1, count * 0.02);
  const mean = (count - 1) / span;
  const fps = variable ? steadyRateFor(sorted) : mean;
  return {
    count,
    duration: span + (lastLength > 0 && lastLength < 1 ? lastLength : median),
    rate: rateFromNumber(Math.min(120, Math.max(1, Number.isFinite(fps) ? fps : DEFAULT_RATE))),
    variable,
  };
}

/**
 * The steady rate at which a recording of varying rate loses nothing that can be seen. A still
 * screen gives few frames, so the usual gap says little: the short ones tell how fast it can go.
 */
function steadyRateFor(sortedGaps: Float64Array): number {
  const fast = 1 / Math.max(1e-3, sortedGaps[Math.floor(sortedGaps.length * 0.1)]!);
  return fast > 55 ? 60 : fast > 45 ? 50 : 30;
}
