import type { WallMap } from '../project/model';
import { formatColor, yuvToRgb } from './color';
import { sampleWall } from './wall-map';

export interface WallEstimate {
  readonly color: string;
  readonly tolerance: number;
  readonly softness: number;
  readonly wall: WallMap;
}

/** Chroma planes of a picture, and its luma, as decoders give them (4:2:0). */
export interface ChromaPicture {
  readonly y: Uint8Array;
  readonly u: Uint8Array;
  readonly v: Uint8Array;
  readonly width: number;
  readonly height: number;
}

/** Cells of the map of the wall's light. */
const CELLS = { columns: 32, rows: 18 };
/** Samples that a cell must have to count by itself. */
const ENOUGH = 12;
/**
 * What of the wall's direction a sample of the wall has at least, and how far to its side it lies
 * at most, as shares.
 */
const WALL_LIKE = { along: 0.6, aside: 0.35 };
/**
 * The key's thresholds as shares of the wall's chroma: the least it tolerates, the most, and what
 * of the wall a person may have.
 */
const LEAST_TOLERANCE = 0.07;
const MOST_TOLERANCE = 0.3;
const SPILL = { least: 0.12, most: 0.3 };

/**
 * Finds the wall's colour, its light from place to place, and how far both spread: the most
 * frequent chroma at the border of the pictures, where a presenter seldom stands; then what is like
 * it in any of them, so that the wall behind a person who moves is seen too. Thresholds come from
 * how the wall's samples and the others lie around it. The answer is null when the border has no
 * one strong colour.
 *
 * @param pictures of one recording, all of one size; the more, the more of the wall is seen
 */
export function estimateWall(pictures: readonly ChromaPicture[]): WallEstimate | null {
  const middle = borderColor(pictures);
  if (!middle) return null;
  const { y, u, v, length } = middle;
  const direction = { u: (u - 128) / length, v: (v - 128) / length };
  const wall = mapWall(pictures, direction, length, [y, u, v]);
  const { tolerance, softness } = thresholds(pictures, wall);
  return { color: formatColor(yuvToRgb([y, u, v])), tolerance, softness, wall };
}

const chromaSize = ({ width, height }: ChromaPicture) => ({
  cw: (width + 1) >> 1,
  ch: (height + 1) >> 1,
});
const lumaAt = ({ y, width }: ChromaPicture, column: number, row: number) =>
  y[row * 2 * width + column * 2]!;

/** The mean of the most frequent chroma along the border. */
function borderColor(
  pictures: readonly ChromaPicture[],
): { y: number; u: number; v: number; length: number } | null {
  const counts = new Uint32Array(64 * 64);
  let border = 0;
  const each = (
    visit: (picture: ChromaPicture, column: number, row: number, i: number) => void,
  ) => {
    for (const picture of pictures) {
      const { cw, ch } = chromaSize(picture);
      for (let row = 0; row < ch * 0.75; row++)
        for (let column = 0; column < cw; column++)
          if (column < cw * 0.15 || column >= cw * 0.85 || row < ch * 0.08)
            visit(picture, column, row, row * cw + column);
    }
  };
  each(({ u, v }, _column, _row, i) => {
    border++;
    counts[(u[i]! >> 2) * 64 + (v[i]! >> 2)]!++;
  });
  const peak = counts.reduce((best, n, i) => (n > counts[best]! ? i : best), 0);
  const [peakU, peakV] = [((peak / 64) | 0) * 4 + 2, (peak % 64) * 4 + 2];
  let [near, y, u, v] = [0, 0, 0, 0];
  each((picture, column, row, i) => {
    if (Math.hypot(picture.u[i]! - peakU, picture.v[i]! - peakV) >= 24) return;
    near++;
    y += lumaAt(picture, column, row);
    u += picture.u[i]!;
    v += picture.v[i]!;
  });
  if (near < border * 0.4 || Math.hypot(peakU - 128, peakV - 128) < 14) return null;
  [y, u, v] = [y / near, u / near, v / near];
  return { y, u, v, length: Math.hypot(u - 128, v - 128) };
}

function mapWall(
  pictures: readonly ChromaPicture[],
  direction: { u: number; v: number },
  length: number,
  mean: readonly number[],
): WallMap {
  const { columns, rows } = CELLS;
  const sums = Array.from({ length: columns * rows }, () => [0, 0, 0, 0]);
  for (const picture of pictures) {
    const { cw, ch } = chromaSize(picture);
    for (let row = 0; row < ch; row++)
      for (let column = 0; column < cw; column++) {
        const i = row * cw + column;
        const [du, dv] = [picture.u[i]! - 128, picture.v[i]! - 128];
        const along = du * direction.u + dv * direction.v;
        if (
          along < length * WALL_LIKE.along ||
          Math.abs(dv * direction.u - du * direction.v) > along * WALL_LIKE.aside
        )
          continue;
        const cell =
          sums[Math.floor((row * rows) / ch) * columns + Math.floor((column * columns) / cw)]!;
        cell[0]! += lumaAt(picture, column, row);
        cell[1]! += picture.u[i]!;
        cell[2]! += picture.v[i]!;
        cell[3]!++;
      }
  }
  const known = sums.map(([y, u, v, n]) => (n! >= ENOUGH ? [y! / n!, u! / n!, v! / n!] : null));
  const filled = fillGaps(known, columns, rows, mean);
  const plane = (k: number) => filled.map((cell) => Math.round(cell[k]! * 10) / 10);
  return { columns, rows, y: plane(0), u: plane(1), v: plane(2) };
}

/**
 * Gives cells that nothing is known of the mean of their neighbours, from those that are known
 * inwards.
 */
function fillGaps(
  known: readonly (number[] | null)[],
  columns: number,
  rows: number,
  mean: readonly number[],
): (readonly number[])[] {
  let cells: (readonly number[] | null)[] = [...known];
  for (let round = 0; round < columns + rows && cells.includes(null); round++)
    cells = cells.map((cell, i) => {
      if (cell) return cell;
      const [x, y] = [i % columns, (i / columns) | 0];
      const around = [
        x > 0 && cells[i - 1],
        x < columns - 1 && cells[i + 1],
        y > 0 && cells[i - columns],
        y < rows - 1 && cells[i + columns],
      ].filter((c): c is number[] => !!c);
      return around.length
        ? [0, 1, 2].map((k) => around.reduce((sum, c) => sum + c[k]!, 0) / around.length)
        : null;
    });
  return cells.map((cell) => cell ?? mean);
}

/**
 * Tolerance from how far the wall's own samples fall short of it, softness from what of the wall's
 * light the others have.
 */
function thresholds(
  pictures: readonly ChromaPicture[],
  wall: WallMap,
): { tolerance: number; softness: number } {
  const first = pictures[0]!;
  const { cw, ch } = chromaSize(first);
  const whole = { x: 0, y: 0, width: first.width, height: first.height };
  const [wu, wv] = (['u', 'v'] as const).map((name) =>
    sampleWall(wall, name, whole, whole, cw, ch),
  ) as [Uint8Array, Uint8Array];
  // Shares of the wall's light in hundredths, from -0.5 to 1.5.
  const shares = new Uint32Array(201);
  let chroma = 0;
  for (const { u, v } of pictures)
    for (let i = 0; i < cw * ch; i++) {
      const [ku, kv] = [wu[i]! - 128, wv[i]! - 128];
      const squared = Math.max(1, ku * ku + kv * kv);
      const share = ((u[i]! - 128) * ku + (v[i]! - 128) * kv) / squared;
      shares[Math.min(200, Math.max(0, Math.round((share + 0.5) * 100)))]!++;
      chroma += Math.sqrt(squared);
    }
  chroma /= cw * ch * pictures.length;
  const clamp = (n: number, least: number, most: number) => Math.min(most, Math.max(least, n));
  const short = 1 - quantile(shares, 130, 200, 0.01);
  const tolerance = clamp(short, LEAST_TOLERANCE, MOST_TOLERANCE);
  const spill = clamp(quantile(shares, 0, 100, 0.95), SPILL.least, SPILL.most);
  return {
    tolerance: Math.round(tolerance * chroma * 10) / 10,
    softness: Math.round(Math.max(1, (1 - tolerance - spill) * chroma) * 10) / 10,
  };
}

/**
 * The share below which a part of the samples lies, counting those between two places of the
 * histogram only.
 */
function quantile(shares: Uint32Array, from: number, to: number, part: number): number {
  let all = 0;
  for (let i = from; i <= to; i++) all += shares[i]!;
  let sum = 0;
  for (let i = from; i <= to; i++) {
    sum += shares[i]!;
    if (sum >= all * part) return i / 100 - 0.5;
  }
  return to / 100 - 0.5;
}
