import { BLOCK, type Appearance, type Block } from './appearance';
import type { Luma } from '../luma';

/** How like a content a place of a picture is. */
export interface Likeness {
  /** The mean correlation of its squares, 0 to 1, those beyond the picture's edges left out. */
  readonly mean: number;
  /** The share of all its squares that are seen there, 0 to 1. */
  readonly seen: number;
  /** Whether dark and light have changed places, as when a page is shown in its dark colours. */
  readonly inverted: boolean;
}

/** From this correlation on, a square is seen. */
const SEEN = 0.7;
/** A square whose samples are all but equal correlates with nothing. */
const FLAT = 1.5;

/**
 * How a square correlates with the samples at a place, -1 to 1: the normalised cross-correlation
 * (Lewis 1995, "Fast normalized cross-correlation"), for which neither brightness nor contrast
 * counts, so that what fades is told too. Null where the square reaches beyond the picture.
 */
export function correlation(
  { x, y, samples, norm }: Block,
  { data, stride, width, height }: Luma,
  left: number,
  top: number,
): number | null {
  const [x0, y0] = [left + x, top + y];
  if (x0 < 0 || y0 < 0 || x0 + BLOCK > width || y0 + BLOCK > height) return null;
  let [sum, squares, product] = [0, 0, 0];
  for (let v = 0, at = 0; v < BLOCK; v++) {
    let from = (y0 + v) * stride + x0;
    for (let u = 0; u < BLOCK; u++) {
      const sample = data[from++]!;
      sum += sample;
      squares += sample * sample;
      product += sample * samples[at++]!;
    }
  }
  const deviation = Math.sqrt(Math.max(0, squares - (sum * sum) / (BLOCK * BLOCK)));
  return deviation < FLAT * BLOCK ? 0 : product / (deviation * norm);
}

/** How like a content a place of a picture is; the place is its upper left corner, in whole pixels. */
export const likenessAt = (appearance: Appearance, picture: Luma, x: number, y: number): Likeness =>
  likenessAbove(appearance, picture, x, y, -1)!;

/**
 * How like a content a place of a picture is, if it is liker than others in the mean; null as soon
 * as it can't be, which for most places a few squares tell.
 *
 * @param least the mean that others have
 */
export function likenessAbove(
  { blocks }: Appearance,
  picture: Luma,
  x: number,
  y: number,
  least: number,
): Likeness | null {
  let [sum, inside, upright, turned] = [0, 0, 0, 0];
  for (let i = 0; i < blocks.length; i++) {
    const left = blocks.length - i;
    if (Math.abs(sum) + left <= least * (inside + left)) return null;
    const found = correlation(blocks[i]!, picture, x, y);
    if (found === null) continue;
    inside++;
    sum += found;
    if (found >= SEEN) upright++;
    else if (found <= -SEEN) turned++;
  }
  const mean = inside ? Math.abs(sum) / inside : 0;
  if (mean <= least) return null;
  return {
    mean,
    seen: Math.max(upright, turned) / Math.max(1, blocks.length),
    inverted: sum < 0,
  };
}
