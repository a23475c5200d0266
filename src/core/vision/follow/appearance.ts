import { intersect, type Rect } from '../../scale/rect';
import { cutOut, type Luma } from '../luma';
import { thinned } from '../spread';
import { resized } from './between';

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
  let [sum, squares] = [0, 0];
  for (let v = 0; v < BLOCK; v++)
    for (let u = 0; u < BLOCK; u++) {
      const sample = luma[(y + v) * width + x + u]!;
      sum += sample;
      squares += sample * sample;
    }
  const mean = sum / (BLOCK * BLOCK);
  squares -= sum * mean;
  // Most of a page is ground, for which nothing is kept.
  if (squares < (LEAST_DEVIATION * BLOCK) ** 2) return null;
  const norm = Math.sqrt(squares);
  const samples = new Float32Array(BLOCK * BLOCK);
  for (let v = 0, at = 0; v < BLOCK; v++)
    for (let u = 0; u < BLOCK; u++) samples[at++] = luma[(y + v) * width + x + u]! - mean;
  return { x, y, samples, mean, norm, telling: unlike(samples) >= TELLING * squares };
}

/** The sum of squares that is left of a square without the means of its rows and columns. */
function unlike(samples: Float32Array): number {
  const [rows, columns] = [new Float32Array(BLOCK), new Float32Array(BLOCK)];
  for (let at = 0; at < samples.length; at++) {
    const share = samples[at]! / BLOCK;
    rows[at >> 4]! += share;
    columns[at & 15]! += share;
  }
  let squares = 0;
  for (let at = 0; at < samples.length; at++) {
    const rest = samples[at]! - rows[at >> 4]! - columns[at & 15]!;
    squares += rest * rest;
  }
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
  return { width, height, luma, blocks: thinned(used, most) };
}

/** A content is looked at with so much around it where it is smaller than a square. */
const least = (from: number, length: number): [number, number] => {
  const lacking = Math.max(0, BLOCK - length);
  return [from - Math.floor(lacking / 2), length + lacking];
};

/** The rectangle of whole pixels by which the content of another is told, within a picture. */
export function whatIsTold(rect: Rect, picture: Luma): Rect {
  const { x, y, width, height } = intersect(rect, {
    ...{ x: 0, y: 0, width: picture.width, height: picture.height },
  });
  const left = Math.floor(x);
  const top = Math.floor(y);
  const [x0, w] = least(left, Math.ceil(x + width) - left);
  const [y0, h] = least(top, Math.ceil(y + height) - top);
  return { x: x0, y: y0, width: w, height: h };
}

/** What a rectangle of whole pixels of a picture looks like. */
export const appearanceIn = (picture: Luma, { x, y, width, height }: Rect): Appearance =>
  appearanceOf(cutOut(picture, x, y, width, height), width, height);

/**
 * The same content at another size, as by a page that is magnified.
 *
 * @param scale times as large; above 0
 */
export function rescaled({ width, height, luma }: Appearance, scale: number): Appearance {
  const w = Math.max(BLOCK, Math.round(width * scale));
  const h = Math.max(BLOCK, Math.round(height * scale));
  const picture = { data: luma, stride: width, width, height };
  // A side that was rounded is not stretched.
  const part = { x: 0, y: 0, width: w / scale, height: h / scale };
  return appearanceOf(resized(picture, part, w, h), w, h);
}
