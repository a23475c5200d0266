import { secondsToTicks, ticksToSeconds, type Ticks } from '@/core/time/ticks';

/** Width of the column with the lanes' names. */
export const HEADER_WIDTH = 144;

/** Height of each row of the timeline, in CSS pixels. */
export const ROW = {
  ruler: 18,
  steps: 22,
  layout: 20,
  framing: 54,
  pointer: 20,
  callouts: 20,
  presenter: 36,
  screen: 36,
  voice: 30,
  music: 24,
  computer: 24,
  folded: 8,
} as const;

export const toPixels = (time: Ticks, pixelsPerSecond: number): number => ticksToSeconds(time) * pixelsPerSecond;
export const toTime = (pixels: number, pixelsPerSecond: number): Ticks => secondsToTicks(pixels / pixelsPerSecond);

const TICK_STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600];

/** Seconds between two labels of the ruler, so that they stand at least 70 px apart. */
export const rulerStep = (pixelsPerSecond: number): number => TICK_STEPS.find((s) => s * pixelsPerSecond >= 70) ?? 3600;
