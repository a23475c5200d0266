import type { Rect } from '../scale/rect';
import type { Luma } from './luma';

/** A row is told by the sums over so many parts of it. */
const PARTS = 8;
/** Scrolling in one picture goes no further than this share of the part's height. */
const FARTHEST = 0.6;
/** With at most this share of the difference without it, a shift is one. */
const BETTER = 0.35;
/** Rows differ by this much on the mean before it is worth asking, in code values. */
const LEAST = 1.5;

/** The means of parts of each row of a rectangle. */
function rowsOf({ data, stride }: Luma, { x, y, width, height }: Rect): Float32Array {
  const rows = new Float32Array(height * PARTS);
  for (let row = 0; row < height; row++)
    for (let part = 0; part < PARTS; part++) {
      const from = x + Math.floor((width * part) / PARTS);
      const to = x + Math.floor((width * (part + 1)) / PARTS);
      let sum = 0;
      for (let u = from; u < to; u += 2) sum += data[(y + row) * stride + u]!;
      rows[row * PARTS + part] = sum / Math.max(1, Math.ceil((to - from) / 2));
    }
  return rows;
}

/**
 * How far rows differ on the mean when the later ones lie so many rows further down; infinite where
 * that is more than a bound.
 */
function apart(before: Float32Array, now: Float32Array, by: number, bound = Infinity): number {
  const [from, to] = [Math.max(0, -by) * PARTS, before.length - Math.max(0, by) * PARTS];
  const most = bound * (to - from);
  let sum = 0;
  for (let at = from; at < to; at++) {
    const step = before[at]! - now[at + by * PARTS]!;
    sum += step < 0 ? -step : step;
    // Most shifts are hopeless after a few rows.
    if (sum > most) return Infinity;
  }
  return sum / (to - from);
}

/**
 * How far what is within a rectangle went down from one picture to the next, in whole pixels; up is
 * negative, 0 if it did not move as a whole. By the means of parts of its rows.
 */
export function scrolledBy(before: Luma, now: Luma, rect: Rect): number {
  const [was, is] = [rowsOf(before, rect), rowsOf(now, rect)];
  const still = apart(was, is, 0);
  if (still < LEAST) return 0;
  let best = { by: 0, apart: still };
  const most = Math.floor(rect.height * FARTHEST);
  // Of shifts that do as well, as over even rows, it is the smallest.
  for (let far = 1; far <= most; far++)
    for (const by of [far, -far]) {
      const found = apart(was, is, by, best.apart);
      if (found < best.apart) best = { by, apart: found };
    }
  return best.apart <= still * BETTER ? best.by : 0;
}
