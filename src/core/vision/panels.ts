import { areaOf, intersect, type Rect } from '../scale/rect';
import type { Run } from './gradients';

/** Panels are at least so wide and so high, in pixels. */
const LEAST_WIDTH = 96;
const LEAST_HEIGHT = 48;
/** The ends of two edges of one panel lie within so many pixels: corners are round. */
const SLACK = 14;
/** Of the height between them, so much is edged at both sides. */
const EDGED = 0.6;
/** With more edges than this, a page is a texture. */
const MOST_RUNS = 1500;
/** Panels that share so much are one. */
const SAME = 0.88;

/** How much of two rectangles is common to them, 0 to 1. */
function overlap(a: Rect, b: Rect): number {
  const shared = areaOf(intersect(a, b));
  return shared / (areaOf(a) + areaOf(b) - shared);
}

/** Edges that lie level, without those that only double the one above. */
function distinct(level: readonly Run[]): Run[] {
  const kept: Run[] = [];
  for (const run of level) {
    const double = kept.findLast(
      (one) =>
        run.at - one.at <= 3 &&
        Math.abs(one.from - run.from) <= 6 &&
        Math.abs(one.to - run.to) <= 6,
    );
    if (!double) kept.push(run);
  }
  return kept;
}

/** The share of a stretch of a column, give or take some pixels, that upright edges take up. */
function edgedAt(
  columns: ReadonlyMap<number, readonly Run[]>,
  x: number,
  top: number,
  bottom: number,
): number {
  let best = 0;
  for (let at = x - SLACK; at <= x + SLACK; at++) {
    const runs = columns.get(at);
    if (!runs) continue;
    const covered = runs.reduce(
      (sum, { from, to }) => sum + Math.max(0, Math.min(to, bottom) - Math.max(from, top)),
      0,
    );
    best = Math.max(best, covered / (bottom - top));
  }
  return best;
}

/**
 * The boxes of a page, as windows, dialogs, tables and cards: two long edges that lie level, begin and
 * end alike, with upright ones at both sides.
 *
 * @param level long straight edges that lie level, from the top down
 * @param upright and those that stand
 */
export function panelsOf(level: readonly Run[], upright: readonly Run[]): Rect[] {
  const long = distinct(level.filter(({ from, to }) => to - from >= LEAST_WIDTH - SLACK));
  if (long.length > MOST_RUNS) return [];
  const columns = new Map<number, Run[]>();
  for (const run of upright) {
    const there = columns.get(run.at);
    if (there) there.push(run);
    else columns.set(run.at, [run]);
  }
  const found: Rect[] = [];
  for (const [i, top] of long.entries())
    for (const bottom of long.slice(i + 1)) {
      if (bottom.at - top.at < LEAST_HEIGHT) continue;
      if (Math.abs(top.from - bottom.from) > SLACK || Math.abs(top.to - bottom.to) > SLACK)
        continue;
      const left = Math.round((top.from + bottom.from) / 2);
      const right = Math.round((top.to + bottom.to) / 2);
      if (edgedAt(columns, left, top.at, bottom.at) < EDGED) continue;
      if (edgedAt(columns, right, top.at, bottom.at) < EDGED) continue;
      const x = Math.min(top.from, bottom.from);
      const width = Math.max(top.to, bottom.to) - x;
      found.push({ x, y: top.at + 1, width, height: bottom.at - top.at });
    }
  const kept: Rect[] = [];
  for (const panel of found.sort((a, b) => areaOf(b) - areaOf(a)))
    if (kept.every((other) => overlap(panel, other) < SAME)) kept.push(panel);
  return kept;
}
