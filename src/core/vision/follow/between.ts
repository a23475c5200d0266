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

/** Between which two samples of a side places lie, and how far from the first to the second. */
interface Between {
  readonly before: Int32Array;
  readonly after: Int32Array;
  readonly share: Float64Array;
}

/** Places along a side that is made anew, some to each of its samples; its ends go on beyond it. */
function placesAlong(from: number, span: number, count: number, taps: number, length: number) {
  const all = count * taps;
  const [before, after] = [new Int32Array(all), new Int32Array(all)];
  const share = new Float64Array(all);
  const clamp = (index: number) => Math.min(Math.max(index, 0), length - 1);
  for (let i = 0, at = 0; i < count; i++)
    for (let tap = 0; tap < taps; tap++, at++) {
      const place = from + (i + (tap + 0.5) / taps) * (span / count) - 0.5;
      before[at] = clamp(Math.floor(place));
      after[at] = Math.min(before[at]! + 1, length - 1);
      share[at] = Math.min(Math.max(place - before[at]!, 0), 1);
    }
  return { before, after, share } satisfies Between;
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
  const { data, stride } = picture;
  const made = new Uint8Array(width * height);
  const taps = Math.max(1, Math.ceil(Math.max(part.width / width, part.height / height)));
  const columns = placesAlong(part.x, part.width, width, taps, picture.width);
  const rows = placesAlong(part.y, part.height, height, taps, picture.height);
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let v = y * taps; v < (y + 1) * taps; v++) {
        const [above, below] = [rows.before[v]! * stride, rows.after[v]! * stride];
        const fy = rows.share[v]!;
        for (let u = x * taps; u < (x + 1) * taps; u++) {
          const [left, right] = [columns.before[u]!, columns.after[u]!];
          const fx = columns.share[u]!;
          const upper = data[above + left]! * (1 - fx) + data[above + right]! * fx;
          const lower = data[below + left]! * (1 - fx) + data[below + right]! * fx;
          sum += upper * (1 - fy) + lower * fy;
        }
      }
      made[at++] = Math.round(sum / (taps * taps));
    }
  return made;
}
