import type { Luma } from '../luma';
import { samplesAt } from './between';
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
  const there = new Float32Array(PART * PART);
  let worst = 1;
  for (const block of blocks)
    for (const v of [0, PART])
      for (const u of [0, PART])
        worst = samplesAt(picture, x + block.x + u, y + block.y + v, PART, there)
          ? Math.min(worst, partOf(block, u, v, there))
          : -1;
  return worst;
}

/** How a part of a square correlates with what is at its place; 1 where it tells nothing. */
function partOf({ samples }: Block, u0: number, v0: number, there: Float32Array): number {
  let [a, b, aa, bb, ab] = [0, 0, 0, 0, 0];
  for (let v = 0; v < PART; v++)
    for (let u = 0; u < PART; u++) {
      const own = samples[(v0 + v) * BLOCK + u0 + u]!;
      const is = there[v * PART + u]!;
      a += own;
      b += is;
      aa += own * own;
      bb += is * is;
      ab += own * is;
    }
  const count = PART * PART;
  const own = aa - (a * a) / count;
  if (own < count * LEAST_DEVIATION ** 2) return 1;
  const is = bb - (b * b) / count;
  return is > 0 ? (ab - (a * b) / count) / Math.sqrt(own * is) : 0;
}
