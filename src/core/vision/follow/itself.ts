import type { Luma } from '../luma';
import { BLOCK, type Appearance, type Block } from './appearance';

/** Letters are told apart by squares of this side. */
const PART = 8;
/** Those of which the samples deviate by so much from their mean. */
const LEAST_DEVIATION = 12;

/**
 * How well a place of a picture shows the worst letter of a content, -1 to 1: contents that are much
 * alike, as two addresses of one house, differ in a few letters only. Beyond the picture it is -1.
 *
 * @param x where its left edge is, to fractions of a pixel
 * @param y where its upper edge is
 */
export function worstPart({ blocks }: Appearance, picture: Luma, x: number, y: number): number {
  let worst = 1;
  for (const block of blocks)
    for (const v of [0, PART])
      for (const u of [0, PART]) worst = Math.min(worst, partOf(block, u, v, picture, x, y));
  return worst;
}

/** How a part of a square correlates with what is at its place; 1 where it tells nothing. */
function partOf(
  { x: left, y: top, samples }: Block,
  u0: number,
  v0: number,
  { data, stride, width, height }: Luma,
  x: number,
  y: number,
): number {
  const [x0, y0] = [Math.floor(x + left) + u0, Math.floor(y + top) + v0];
  if (x0 < 0 || y0 < 0 || x0 + PART >= width || y0 + PART >= height) return -1;
  const [fx, fy] = [x + left + u0 - x0, y + top + v0 - y0];
  let [a, b, aa, bb, ab] = [0, 0, 0, 0, 0];
  for (let v = 0; v < PART; v++)
    for (let u = 0; u < PART; u++) {
      const own = samples[(v0 + v) * BLOCK + u0 + u]!;
      const at = (y0 + v) * stride + x0 + u;
      const upper = data[at]! * (1 - fx) + data[at + 1]! * fx;
      const lower = data[at + stride]! * (1 - fx) + data[at + stride + 1]! * fx;
      const there = upper * (1 - fy) + lower * fy;
      a += own;
      b += there;
      aa += own * own;
      bb += there * there;
      ab += own * there;
    }
  const count = PART * PART;
  const own = aa - (a * a) / count;
  if (own < count * LEAST_DEVIATION ** 2) return 1;
  const there = bb - (b * b) / count;
  return there > 0 ? (ab - (a * b) / count) / Math.sqrt(own * there) : 0;
}
