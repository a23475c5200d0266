import type { Point } from '../../schema/parts';
import { samplesAt } from './between';
import { BLOCK, type Appearance } from './appearance';
import type { Luma } from '../luma';

/** So many steps at most, until one is shorter than this. */
const STEPS = 6;
const ENOUGH = 0.02;
/** A whole-pixel place is right to this; what goes further away was none. */
const FARTHEST = 1.5;
/** Places are told to this part of a pixel: finer ones only jitter. */
const GRAIN = 0.25;

/**
 * Where a content lies to fractions of a pixel, from its place in whole pixels on: the shift that
 * makes the least squared difference, found by Gauss-Newton steps along the content's own slopes
 * (Baker, Matthews 2004, "Lucas-Kanade 20 years on", inverse compositional). Brightness and contrast
 * of a square do not count.
 *
 * @returns the place in quarters of a pixel
 */
export function refined({ blocks }: Appearance, picture: Luma, start: Point): Point {
  const here = new Float32Array(BLOCK * BLOCK);
  let { x, y } = start;
  for (let step = 0; step < STEPS; step++) {
    let [xx, xy, yy, bx, by] = [0, 0, 0, 0, 0];
    for (const { x: u0, y: v0, samples, norm } of blocks) {
      if (!samplesAt(picture, x + u0, y + v0, BLOCK, here)) continue;
      let [sum, squares] = [0, 0];
      for (const sample of here) {
        sum += sample;
        squares += sample * sample;
      }
      const mean = sum / here.length;
      const deviation = Math.sqrt(Math.max(1, squares - sum * mean));
      const gain = norm / deviation;
      for (let v = 1; v < BLOCK - 1; v++)
        for (let u = 1; u < BLOCK - 1; u++) {
          const at = v * BLOCK + u;
          const dx = (samples[at + 1]! - samples[at - 1]!) / 2;
          const dy = (samples[at + BLOCK]! - samples[at - BLOCK]!) / 2;
          const off = samples[at]! - (here[at]! - mean) * gain;
          xx += dx * dx;
          xy += dx * dy;
          yy += dy * dy;
          bx += dx * off;
          by += dy * off;
        }
    }
    const determinant = xx * yy - xy * xy;
    // Of lines that all go one way nothing can be told along them.
    if (determinant <= 1e-6 * xx * yy || determinant <= 0) break;
    const shiftX = (yy * bx - xy * by) / determinant;
    const shiftY = (xx * by - xy * bx) / determinant;
    x += shiftX;
    y += shiftY;
    if (Math.hypot(x - start.x, y - start.y) > FARTHEST) return start;
    if (Math.hypot(shiftX, shiftY) < ENOUGH) break;
  }
  return { x: Math.round(x / GRAIN) * GRAIN, y: Math.round(y / GRAIN) * GRAIN };
}
