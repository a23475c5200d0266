import { intersect, type Rect } from '../../scale/rect';
import { cutOut, type Luma } from '../luma';

/** Content is told by squares of this side. */
export const BLOCK = 16;
/** So many squares at most, spread over it. */
const MOST_BLOCKS = 64;
/** A square whose samples deviate by less from their mean tells nothing. */
const LEAST_DEVIATION = 5;

/** Lines that all go one way leave less than this share of a square's variation. */
const TELLING = 0.2;
/** With fewer squares that tell more than that, all are taken. */
const ENOUGH = 4;

/** A square of a content, from its upper left corner, with what makes it comparable. */
export interface Block {
  readonly x: number;
  readonly y: number;
  readonly samples: Float32Array;
  readonly mean: number;
  /** The root of the sum of its squared deviations. */
  readonly norm: number;
  /** Whether it shows more than lines that all go one way, which look alike along them. */
  readonly telling: boolean;
}

/** What a part of a picture looks like, for telling it again elsewhere. */
export interface Appearance {
  readonly width: number;
  readonly height: number;
  readonly luma: Uint8Array;
  readonly blocks: readonly Block[];
}

/** A square of some samples; null if it tells nothing. */
function blockAt(luma: Uint8Array, width: number, x: number, y: number): Block | null {
  const samples = new Float32Array(BLOCK * BLOCK);
  let sum = 0;
  for (let v = 0, at = 0; v < BLOCK; v++)
    for (let u = 0; u < BLOCK; u++) sum += samples[at++] = luma[(y + v) * width + x + u]!;
  const mean = sum / samples.length;
  let squares = 0;
  for (let at = 0; at < samples.length; at++) squares += (samples[at] = samples[at]! - mean) ** 2;
  const norm = Math.sqrt(squares);
  if (norm < LEAST_DEVIATION * BLOCK) return null;
  return { x, y, samples, mean, norm, telling: unlike(samples) >= TELLING * squares };
}

/** The sum of squares that is left of a square without the means of its rows and columns. */
function unlike(samples: Float32Array): number {
  const [rows, columns] = [new Float32Array(BLOCK), new Float32Array(BLOCK)];
  samples.forEach((sample, at) => {
    rows[at >> 4]! += sample / BLOCK;
    columns[at & 15]! += sample / BLOCK;
  });
  let squares = 0;
  samples.forEach((sample, at) => (squares += (sample - rows[at >> 4]! - columns[at & 15]!) ** 2));
  return squares;
}

/** Places of squares along a side: as many as fit, the last one flush with the end. */
function steps(length: number): number[] {
  const count = Math.max(1, Math.ceil(length / BLOCK));
  return Array.from({ length: count }, (_, i) => Math.min(i * BLOCK, Math.max(0, length - BLOCK)));
}

/**
 * What a cut-out of a picture looks like: its squares of 16x16 samples that show anything. What is
 * narrower than a square is to be given with its surroundings.
 *
 * @param luma its samples, row by row
 * @param most so many squares at most
 */
export function appearanceOf(
  luma: Uint8Array,
  width: number,
  height: number,
  most = MOST_BLOCKS,
): Appearance {
  const all: Block[] = [];
  for (const y of steps(height))
    for (const x of steps(width)) {
      const block = blockAt(luma, width, x, y);
      if (block) all.push(block);
    }
  const telling = all.filter((block) => block.telling);
  const used = telling.length >= ENOUGH ? telling : all;
  const step = Math.max(1, used.length / most);
  const blocks = used.filter((_, i) => Math.floor(i / step) !== Math.floor((i - 1) / step));
  return { width, height, luma, blocks };
}

/** A content is looked at with so much around it where it is smaller than a square. */
const least = (from: number, length: number): [number, number] => {
  const lacking = Math.max(0, BLOCK - length);
  return [from - Math.floor(lacking / 2), length + lacking];
};

/** The rectangle of whole pixels by which the content of another is told, within a picture. */
export function whatIsTold(rect: Rect, picture: Luma): Rect {
  const { x, y, width, height } = intersect(rect, { x: 0, y: 0, ...sizeOf(picture) });
  const left = Math.floor(x);
  const top = Math.floor(y);
  const [x0, w] = least(left, Math.ceil(x + width) - left);
  const [y0, h] = least(top, Math.ceil(y + height) - top);
  return { x: x0, y: y0, width: w, height: h };
}

const sizeOf = ({ width, height }: Luma) => ({ width, height });

/** What a rectangle of whole pixels of a picture looks like. */
export const appearanceIn = (picture: Luma, { x, y, width, height }: Rect): Appearance =>
  appearanceOf(cutOut(picture, x, y, width, height), width, height);

/**
 * The same content at another size, as by a page that is magnified: each sample is between the four
 * nearest, or the mean of those that it takes the place of.
 *
 * @param scale times as large; above 0
 */
export function rescaled({ width, height, luma }: Appearance, scale: number): Appearance {
  const w = Math.max(BLOCK, Math.round(width * scale));
  const h = Math.max(BLOCK, Math.round(height * scale));
  const made = new Uint8Array(w * h);
  // Smaller: as many samples are taken as make up one.
  const taps = Math.max(1, Math.ceil(1 / scale));
  for (let y = 0, at = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let v = 0; v < taps; v++)
        for (let u = 0; u < taps; u++)
          sum += sampleAt(
            { luma, width, height },
            (x + (u + 0.5) / taps) / scale - 0.5,
            (y + (v + 0.5) / taps) / scale - 0.5,
          );
      made[at++] = Math.round(sum / (taps * taps));
    }
  return appearanceOf(made, w, h);
}

function sampleAt(
  { luma, width, height }: Pick<Appearance, 'luma' | 'width' | 'height'>,
  x: number,
  y: number,
): number {
  const left = Math.min(Math.max(Math.floor(x), 0), width - 1);
  const top = Math.min(Math.max(Math.floor(y), 0), height - 1);
  const right = Math.min(left + 1, width - 1);
  const bottom = Math.min(top + 1, height - 1);
  const fx = Math.min(Math.max(x - left, 0), 1);
  const fy = Math.min(Math.max(y - top, 0), 1);
  const upper = luma[top * width + left]! * (1 - fx) + luma[top * width + right]! * fx;
  const lower = luma[bottom * width + left]! * (1 - fx) + luma[bottom * width + right]! * fx;
  return upper * (1 - fy) + lower * fy;
}
