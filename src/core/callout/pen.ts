import type { Size } from '../scale/rect';
import { USUAL_MOTION } from './motion';

/** What a line is drawn with by hand. */
export type Pen = 'pen' | 'marker';

/** A point of a line: milliseconds after its start, pixels of what it is drawn on. */
export type PenPoint = readonly [ms: number, x: number, y: number];

/** Widths as shares of the frame's height, and colours. */
const LOOK = {
  pen: { width: 0.006, color: '#c2412d' },
  marker: { width: 0.028, color: '#f2c230' },
} as const;

/** Points that are nearer to the one before than this, in frame pixels, say nothing more. */
const LEAST_WAY = 1.5;
const MOST_POINTS = 20_000;

/** How many pixels of what is drawn on are one frame pixel, where all of it is seen. */
const perFrame = (size: Size, frame: Size): number => size.height / frame.height;

/** How wide a line that is drawn is, in pixels of what it is drawn on, and its colour. */
export const penLook = (pen: Pen, size: Size, frame: Size) => ({
  width: Math.max(1, Math.round(LOOK[pen].width * frame.height * perFrame(size, frame))),
  color: LOOK[pen].color,
});

/**
 * A line that was drawn by hand as a callout, but for its time and what it stands on; null when it
 * is a slip of the hand, which goes nowhere.
 *
 * @param size of what it is drawn on, in pixels
 * @param frame the project's, in frame pixels
 */
export function drawnLine(pen: Pen, points: readonly PenPoint[], size: Size, frame: Size) {
  const least = LEAST_WAY * perFrame(size, frame);
  const kept: [number, number, number][] = [];
  for (const [ms, x, y] of points) {
    const last = kept.at(-1);
    if (last && Math.hypot(x - last[1], y - last[2]) < least) continue;
    if (kept.length < MOST_POINTS) kept.push([Math.round(ms), x, y]);
  }
  if (kept.length < 2) return null;
  return {
    ...{ kind: 'stroke' as const, tool: pen, points: kept },
    ...penLook(pen, size, frame),
    ...USUAL_MOTION,
  };
}
