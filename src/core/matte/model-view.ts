import type { Rect } from '../scale/rect';
import type { SmallPicture } from './picture';

/** Side of the square picture that the model of a person takes and gives, in pixels. */
export const MODEL_SIDE = 256;

/** How much room is left around a person, as a share of their size. */
const ROOM = 0.25;
/** A person smaller than this share of the picture's height is not come closer to. */
const LEAST = 0.5;

/**
 * What the model looks at: red, green and blue of 0 to 1 for each of `MODEL_SIDE` squared places of
 * a part of a picture, drawn bilinearly. Beyond the picture its edge is repeated. Conversion by
 * ITU-R BT.709, limited range.
 *
 * @param box the part, in pixels of the picture
 */
export function modelInput(picture: SmallPicture, box: Rect, into: Float32Array): void {
  const { width, height, y: ys, u: us, v: vs } = picture;
  const columns = placesOf(box.x, box.width, width);
  const rows = placesOf(box.y, box.height, height);
  let at = 0;
  for (let j = 0; j < MODEL_SIDE; j++) {
    const [top, bottom, down] = [rows.low[j]! * width, rows.high[j]! * width, rows.share[j]!];
    for (let i = 0; i < MODEL_SIDE; i++) {
      const [left, right, across] = [columns.low[i]!, columns.high[i]!, columns.share[i]!];
      const a = (1 - across) * (1 - down);
      const b = across * (1 - down);
      const c = (1 - across) * down;
      const d = across * down;
      const of = (plane: Uint8Array) =>
        plane[top + left]! * a +
        plane[top + right]! * b +
        plane[bottom + left]! * c +
        plane[bottom + right]! * d;
      const light = (of(ys) - 16) / 219;
      const blue = (of(us) - 128) / 224;
      const red = (of(vs) - 128) / 224;
      into[at++] = within(light + 1.5748 * red);
      into[at++] = within(light - 0.1873 * blue - 0.4681 * red);
      into[at++] = within(light + 1.8556 * blue);
    }
  }
}

/** What the model answers for a part, at the picture's own pixels; 0 outside of the part. */
export function modelOutput(
  answer: Float32Array,
  box: Rect,
  { width, height }: Sides,
): Float32Array {
  const out = new Float32Array(width * height);
  const from = (start: number) => Math.max(0, Math.ceil(start - 0.5));
  const to = (end: number, most: number) => Math.min(most, Math.floor(end + 0.5));
  const [left, right] = [from(box.x), to(box.x + box.width, width)];
  const [top, bottom] = [from(box.y), to(box.y + box.height, height)];
  const most = MODEL_SIDE - 1;
  for (let y = top; y < bottom; y++) {
    const fy = clamp(((y + 0.5 - box.y) / box.height) * MODEL_SIDE - 0.5, most);
    const y0 = Math.floor(fy);
    const [row, next, down] = [y0 * MODEL_SIDE, Math.min(most, y0 + 1) * MODEL_SIDE, fy - y0];
    for (let x = left; x < right; x++) {
      const fx = clamp(((x + 0.5 - box.x) / box.width) * MODEL_SIDE - 0.5, most);
      const x0 = Math.floor(fx);
      const x1 = Math.min(most, x0 + 1);
      const across = fx - x0;
      out[y * width + x] =
        (answer[row + x0]! * (1 - across) + answer[row + x1]! * across) * (1 - down) +
        (answer[next + x0]! * (1 - across) + answer[next + x1]! * across) * down;
    }
  }
  return out;
}

/**
 * Parts of a picture in which a person may be looked for, none of them stretched: a square about
 * the middle as high as the picture, and one around all of it.
 */
export function firstLooks({ width, height }: Sides): Rect[] {
  const square = (side: number) => ({
    ...{ x: (width - side) / 2, y: height - side },
    ...{ width: side, height: side },
  });
  return [square(Math.min(width, height)), square(Math.max(width, height))];
}

/**
 * The square part of a picture that the model should look at next: a person and some room around
 * them. A person who is cut off by the lower edge stays at that of the part. Null while none is
 * known.
 *
 * @param sure how surely each pixel is of a person, 0 to 1
 */
export function lookAt(sure: Float32Array, { width, height }: Sides): Rect | null {
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (sure[y * width + x]! > 0.5) {
        left = Math.min(left, x);
        right = Math.max(right, x + 1);
        top = Math.min(top, y);
        bottom = y + 1;
      }
  if (right <= left) return null;
  const size = Math.max(right - left, bottom - top, height * LEAST);
  const side = Math.min(Math.max(width, height), size * (1 + ROOM));
  const cut = bottom >= height - 2;
  return {
    x: (left + right - side) / 2,
    y: cut ? height - side : Math.min(height - side, (top + bottom - side) / 2),
    ...{ width: side, height: side },
  };
}

interface Sides {
  readonly width: number;
  readonly height: number;
}

const within = (n: number) => (n < 0 ? 0 : n > 1 ? 1 : n);
const clamp = (n: number, most: number) => (n < 0 ? 0 : n > most ? most : n);

/** For each of the model's places along one side the samples on both sides of it. */
function placesOf(start: number, span: number, count: number) {
  const low = new Int32Array(MODEL_SIDE);
  const high = new Int32Array(MODEL_SIDE);
  const share = new Float32Array(MODEL_SIDE);
  for (let i = 0; i < MODEL_SIDE; i++) {
    const at = clamp(start + ((i + 0.5) / MODEL_SIDE) * span - 0.5, count - 1);
    low[i] = Math.floor(at);
    high[i] = Math.min(count - 1, low[i]! + 1);
    share[i] = at - low[i]!;
  }
  return { low, high, share };
}
