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
  const low = luma.slice();
  const high = luma.slice();
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      const at = v * width + u;
      const here = luma[at]!;
      const near = (beside: number) => {
        const half = (here + luma[beside]!) / 2;
        if (half < low[at]!) low[at] = half;
        if (half > high[at]!) high[at] = half;
      };
      if (u) near(at - 1);
      if (u + 1 < width) near(at + 1);
      if (v) near(at - width);
      if (v + 1 < height) near(at + width);
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
