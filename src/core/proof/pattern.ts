import { BLOCK } from '../vision/follow/appearance';
import type { Luma } from '../vision/luma';

/**
 * What a square of 16 pixels shows beyond bands: its samples without the means of their rows. The
 * upper and lower edges of covers and the grey that is left of a blurred line of text are bands, and
 * nobody reads those; what goes along a line, its letters or the cells that they were made into, may
 * be guessed.
 *
 * @param x its left edge, in whole pixels
 * @param y its upper edge
 */
function patternAt({ data, stride }: Luma, x: number, y: number): Float32Array {
  const samples = new Float32Array(BLOCK * BLOCK);
  for (let v = 0; v < BLOCK; v++) {
    const row = samples.subarray(v * BLOCK, (v + 1) * BLOCK);
    const from = (y + v) * stride + x;
    row.set(data.subarray(from, from + BLOCK));
    const mean = row.reduce((sum, sample) => sum + sample, 0) / BLOCK;
    for (let u = 0; u < BLOCK; u++) row[u] = row[u]! - mean;
  }
  return samples;
}

const product = (a: Float32Array, b: Float32Array): number =>
  a.reduce((sum, sample, at) => sum + sample * b[at]!, 0);

/** Two patterns, or several of them together: their own products, and that of one with the other. */
export interface PatternMatch {
  readonly own: number;
  readonly shown: number;
  readonly both: number;
  /** How many samples. */
  readonly samples: number;
}

/**
 * Compares a square of 16 pixels of two pictures.
 *
 * @param x the square's left edge, in whole pixels; it lies within both
 * @param y its upper edge
 */
export function matchAt(bare: Luma, picture: Luma, x: number, y: number): PatternMatch {
  const [a, b] = [patternAt(bare, x, y), patternAt(picture, x, y)];
  return { own: product(a, a), shown: product(b, b), both: product(a, b), samples: a.length };
}

/** Several matches as one. */
export const together = (matches: readonly PatternMatch[]): PatternMatch =>
  matches.reduce(
    (all, one) => ({
      own: all.own + one.own,
      shown: all.shown + one.shown,
      both: all.both + one.both,
      samples: all.samples + one.samples,
    }),
    { own: 0, shown: 0, both: 0, samples: 0 },
  );

/** How two patterns correlate, 0 to 1, dark and light changed for each other or not. */
export const likenessOf = ({ own, shown, both }: PatternMatch): number =>
  own * shown > 0 ? Math.abs(both) / Math.sqrt(own * shown) : 0;

/** How much of the one pattern is in the other: its deviation there, in grey levels. */
export const remainsOf = ({ own, both, samples }: PatternMatch): number =>
  own > 0 ? Math.abs(both) / Math.sqrt(own * samples) : 0;
