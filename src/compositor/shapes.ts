import { assertNever } from '@/core/assert-never';
import { SQUIRCLE_POWER } from '@/core/layout/mask';
import type { Size } from '@/core/scale/rect';

/** An outline that is the same from left to right and from top to bottom. */
export interface Shape {
  readonly shape: 'ellipse' | 'rectangle' | 'rounded' | 'squircle';
  /** Of rounded corners, in pixels. */
  readonly radius?: number;
}

/**
 * How far inside an outline a place is, in pixels; below 0 outside. The place is told by how far it
 * is from the outline's middle to the side and up or down, both 0 or more.
 */
export type Inside = (dx: number, dy: number) => number;

/**
 * How far inside an outline of a size places are. Of ellipses and squircles (G. Lamé's
 * superellipses, 1818) to first order: exact on the outline, and near it.
 */
export function insideOf({ shape, radius = 0 }: Shape, { width, height }: Size): Inside {
  const [rx, ry] = [width / 2, height / 2];
  const round = Math.min(radius, rx, ry);
  switch (shape) {
    case 'ellipse':
      return (dx, dy) => {
        const [nx, ny] = [dx / rx, dy / ry];
        const d = Math.sqrt(nx * nx + ny * ny);
        const [sx, sy] = [nx / rx, ny / ry];
        const slope = Math.sqrt(sx * sx + sy * sy);
        return ((1 - d) * (d || 1)) / (slope || 1 / Math.min(rx, ry));
      };
    case 'squircle':
      return (dx, dy) => {
        const n = SQUIRCLE_POWER;
        const [nx, ny] = [dx / rx, dy / ry];
        const d = (nx ** n + ny ** n) ** (1 / n);
        const [sx, sy] = [nx ** (n - 1) / rx, ny ** (n - 1) / ry];
        const slope = Math.sqrt(sx * sx + sy * sy) / (d || 1) ** (n - 1);
        return (1 - d) / (slope || 1 / Math.min(rx, ry));
      };
    case 'rounded':
      return (dx, dy) => {
        const [qx, qy] = [dx - rx + round, dy - ry + round];
        const [ox, oy] = [Math.max(0, qx), Math.max(0, qy)];
        return round - Math.sqrt(ox * ox + oy * oy) - Math.min(0, Math.max(qx, qy));
      };
    case 'rectangle':
      return (dx, dy) => Math.min(rx - dx, ry - dy);
    default:
      return assertNever(shape);
  }
}

/** What a pixel is, 0 to 255, by how far inside an outline it is. */
export interface Profile {
  /** From here on outwards, and from here on inwards, all pixels are the same. */
  readonly from: number;
  readonly to: number;
  readonly of: (inside: number) => number;
}

const byte = (share: number) => Math.round(255 * Math.min(1, Math.max(0, share)));

/** All that an outline surrounds. */
export const FILLED: Profile = { from: -0.5, to: 0.5, of: (inside) => byte(inside + 0.5) };

/** A line along an outline, half of it on either side, so many pixels wide. */
export function lined(width: number): Profile {
  const half = width / 2 + 0.5;
  return { from: -half, to: half, of: (inside) => byte(half - Math.abs(inside)) };
}

/**
 * Fills a plane with an outline in its middle. Only a quarter is worked out, and of that, where
 * the outline is hard, only what lies along it: in motion each picture has another size.
 *
 * @param out one byte for each pixel, row by row
 * @param along whether a row that goes inwards goes further inside with each pixel; else all of
 *   the quarter is worked out
 */
export function coverPlane(
  out: Uint8Array,
  { width, height }: Size,
  inside: Inside,
  { from, to, of }: Profile,
  along = true,
): void {
  const half = (width + 1) >> 1;
  const [outer, inner] = [of(from), of(to)];
  for (let y = 0; y < (height + 1) >> 1; y++) {
    const dy = height / 2 - y - 0.5;
    const at = (x: number) => inside(width / 2 - x - 0.5, dy);
    const begins = along ? firstOf(0, half, (x) => at(x) > from) : 0;
    const ends = along ? firstOf(begins, half, (x) => at(x) >= to) : half;
    const row = y * width;
    const last = row + width;
    out.fill(outer, row, row + begins).fill(outer, last - begins, last);
    out.fill(inner, row + ends, last - ends);
    for (let x = begins; x < ends; x++) out[row + x] = out[last - 1 - x] = of(at(x));
    out.copyWithin((height - 1 - y) * width, row, last);
  }
}

/** The first of some places in order from which on something holds; `until` where it never does. */
function firstOf(start: number, until: number, holds: (x: number) => boolean): number {
  let [low, high] = [start, until];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}
