import { framesPerSecond, type FrameRate } from './ticks';

/** The frame rates that films, broadcasts and screens have, by their usual names. */
export const USUAL_RATES: readonly (readonly [name: string, rate: FrameRate])[] = [
  ['24', { num: 24, den: 1 }],
  ['25', { num: 25, den: 1 }],
  ['29.97', { num: 30000, den: 1001 }],
  ['30', { num: 30, den: 1 }],
  ['50', { num: 50, den: 1 }],
  ['60', { num: 60, den: 1 }],
];

/** Rates nearer than this are the same, in frames a second. */
const SAME = 0.05;

/** The usual rate that a measured one is; null for any other. */
export const usualRateOf = (rate: FrameRate): FrameRate | null =>
  USUAL_RATES.find(
    ([, usual]) => Math.abs(framesPerSecond(usual) - framesPerSecond(rate)) < SAME,
  )?.[1] ?? null;

/**
 * How often each picture of one rate is shown at another, if that is the same for all of them: 2
 * for 15 in 30, 1 for the same rate; null where it is uneven.
 */
export function timesShown(rate: FrameRate, at: FrameRate): number | null {
  const times = framesPerSecond(at) / framesPerSecond(rate);
  const whole = Math.round(times);
  // Over a second it may be off by no more than the rates themselves.
  return whole >= 1 && Math.abs(times - whole) * framesPerSecond(rate) < SAME ? whole : null;
}
