import { cutOut, type Luma } from './luma';

/**
 * A cut-out of a picture, ready to be compared with others that lie on other fractions of a pixel:
 * each sample with the lightest and the darkest that may lie half a pixel around it.
 */
export interface Cut {
  readonly width: number;
  readonly height: number;
  readonly luma: Uint8Array;
  readonly low: Uint8Array;
  readonly high: Uint8Array;
}

/** A cut-out of a picture at a place. */
export function cutAt(picture: Luma, x: number, y: number, width: number, height: number): Cut {
  const luma = cutOut(picture, x, y, width, height);
  const low = new Uint8Array(luma.length);
  const high = new Uint8Array(luma.length);
  // Of what lies to the sides of a sample, and above and below it, the least and the most count.
  for (let v = 0, at = 0; v < height; v++)
    for (let u = 0; u < width; u++, at++) {
      const here = luma[at]!;
      const left = u ? luma[at - 1]! : here;
      const right = u + 1 < width ? luma[at + 1]! : here;
      const above = v ? luma[at - width]! : here;
      const below = v + 1 < height ? luma[at + width]! : here;
      low[at] = (here + Math.min(here, left, right, above, below)) / 2;
      high[at] = (here + Math.max(here, left, right, above, below)) / 2;
    }
  return { width, height, luma, low, high };
}

/**
 * How far two samples of cut-outs lie apart, where fractions of a pixel between both don't count
 * (S. Birchfield, C. Tomasi: A pixel dissimilarity measure that is insensitive to image sampling,
 * 1998).
 */
export function apartAt(a: Cut, i: number, b: Cut, k: number): number {
  const [p, q] = [a.luma[i]!, b.luma[k]!];
  const forth = Math.max(0, p - b.high[k]!, b.low[k]! - p);
  const back = Math.max(0, q - a.high[i]!, a.low[i]! - q);
  return Math.min(forth, back);
}
