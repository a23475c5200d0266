import type { Rect } from '../../scale/rect';
import type { Luma } from '../luma';

/**
 * The samples of a square of a picture that lies between its pixels, each by those of the four
 * nearest (bilinear), row by row.
 *
 * @param x where its left edge is, to fractions of a pixel
 * @param y where its upper edge is
 * @param into takes `side` times `side` samples
 * @returns false where it reaches beyond the picture
 */
export function samplesAt(
  { data, stride, width, height }: Luma,
  x: number,
  y: number,
  side: number,
  into: Float32Array,
): boolean {
  const [left, top] = [Math.floor(x), Math.floor(y)];
  if (left < 0 || top < 0 || left + side >= width || top + side >= height) return false;
  const [fx, fy] = [x - left, y - top];
  for (let v = 0, at = 0; v < side; v++) {
    let from = (top + v) * stride + left;
    for (let u = 0; u < side; u++, from++) {
      const upper = data[from]! * (1 - fx) + data[from + 1]! * fx;
      const lower = data[from + stride]! * (1 - fx) + data[from + stride + 1]! * fx;
      into[at++] = upper * (1 - fy) + lower * fy;
    }
  }
  return true;
}

/** A sample between the four nearest of a picture, whose edges go on beyond it. */
function sampleAt({ data, stride, width, height }: Luma, x: number, y: number): number {
  const left = Math.min(Math.max(Math.floor(x), 0), width - 1);
  const top = Math.min(Math.max(Math.floor(y), 0), height - 1);
  const right = Math.min(left + 1, width - 1);
  const bottom = Math.min(top + 1, height - 1);
  const fx = Math.min(Math.max(x - left, 0), 1);
  const fy = Math.min(Math.max(y - top, 0), 1);
  const upper = data[top * stride + left]! * (1 - fx) + data[top * stride + right]! * fx;
  const lower = data[bottom * stride + left]! * (1 - fx) + data[bottom * stride + right]! * fx;
  return upper * (1 - fy) + lower * fy;
}

/**
 * A part of a picture at another size: each sample is between the four nearest, or the mean of those
 * that it takes the place of. Answers its samples by rows.
 *
 * @param part in pixels of the picture, to fractions of one
 * @param width samples a row of what is made
 * @param height rows of it
 */
export function resized(picture: Luma, part: Rect, width: number, height: number): Uint8Array {
  const made = new Uint8Array(width * height);
  const [across, down] = [part.width / width, part.height / height];
  const taps = Math.max(1, Math.ceil(Math.max(across, down)));
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let v = 0; v < taps; v++)
        for (let u = 0; u < taps; u++)
          sum += sampleAt(
            picture,
            part.x + (x + (u + 0.5) / taps) * across - 0.5,
            part.y + (y + (v + 0.5) / taps) * down - 0.5,
          );
      made[at++] = Math.round(sum / (taps * taps));
    }
  return made;
}
