import type { Lane } from '@/core/project/model';
import { secondsToTicks, ticksToSeconds, type Ticks } from '@/core/time/ticks';

/** Width of the column with the lanes' names. */
export const HEADER_WIDTH = 204;

/** What is narrower than this has nothing within: no name, no ends to pull, in pixels. */
export const PLAIN_PX = 28;

/** Height of spans that lie over one another, in CSS pixels. */
const STACKED_PX = 18;

/** Height of each row of the timeline, in CSS pixels. */
export const ROW = {
  ruler: 20,
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
  empty: 20,
  folded: 8,
} as const;

/** Height of a row of the timeline whose spans lie in so many rows. */
export const stackHeight = (one: number, rows: number): number =>
  rows === 1 ? one : rows * STACKED_PX + 1;

/** Height of a lane: folded while it is the only one of its kind and has nothing on it. */
export function laneHeight(lane: Lane, lanes: readonly Lane[]): number {
  if (lane.clips.length) return Math.round(ROW[lane.kind] * lane.height);
  return lanes.some((l) => l !== lane && l.kind === lane.kind) ? ROW.empty : ROW.folded;
}

/** Least and largest timeline scale, in pixels a second: two hours fit, and a frame can be seen. */
export const SCALES = { least: 0.08, most: 600 } as const;

export const toPixels = (time: Ticks, pixelsPerSecond: number): number =>
  ticksToSeconds(time) * pixelsPerSecond;
export const toTime = (pixels: number, pixelsPerSecond: number): Ticks =>
  secondsToTicks(pixels / pixelsPerSecond);

/** The part of the timeline that is drawn, in pixels from its start; a little more than is seen. */
export interface Sight {
  readonly from: number;
  readonly to: number;
}

const SIGHT_STEP = 128;

/** What is drawn for a scroll position: in steps, so that not every small scroll draws anew. */
export const sightOf = (left: number, width: number): Sight => ({
  from: Math.floor(left / SIGHT_STEP) * SIGHT_STEP - SIGHT_STEP,
  to: Math.ceil((left + width) / SIGHT_STEP) * SIGHT_STEP + SIGHT_STEP,
});

/** Whether something from one time to another is in sight. */
export const inSight = (sight: Sight, start: Ticks, end: Ticks, scale: number): boolean =>
  toPixels(end, scale) >= sight.from && toPixels(start, scale) <= sight.to;

const TICK_STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600];

/** Seconds between two labels of the ruler, so that they stand at least 70 px apart. */
export const rulerStep = (pixelsPerSecond: number): number =>
  TICK_STEPS.find((s) => s * pixelsPerSecond >= 70) ?? 3600;
