import type { Rect } from '../scale/rect';
import { takeConnected, type Connected } from './connected';
import { LEAST_CHANGE, TILE, tilesOf, type Luma } from './luma';

/** A small thing that changed between two pictures: its box, and which samples of that changed. */
export interface Blob extends Connected {
  readonly mask: Uint8Array;
}

/** Changed samples that are no further apart than this belong together. */
export const REACH = { x: 2, y: 2 };
/** With more changed samples than this, a picture is a new one, not one with things that moved. */
export const MOST_SAMPLES = 60_000;

/** A blob that fills this share of its box may be something that lit up, with a pointer over it. */
const FILLED = 0.6;
/** And this share of it changed alike, by no more than so much from each other. */
const ALIKE = 0.5;
const SPREAD = 4;
/** What stands before it changed otherwise by more than this. */
const OTHERWISE = 24;

/** How much most of a blob became lighter or darker; null where it did not change as one. */
function shiftOf(now: Luma, before: Luma, blob: Blob): number | null {
  const { x, y, width, height, mask, count } = blob;
  if (count < FILLED * width * height) return null;
  const counts = new Uint32Array(511);
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      if (!mask[v * width + u]) continue;
      const [i, k] = [(y + v) * now.stride + x + u, (y + v) * before.stride + x + u];
      counts[now.data[i]! - before.data[k]! + 255]!++;
    }
  const shift = counts.indexOf(Math.max(...counts));
  const alike = counts.subarray(Math.max(0, shift - SPREAD), shift + SPREAD + 1);
  return alike.reduce((sum, n) => sum + n, 0) < ALIKE * count ? null : shift - 255;
}

/** Borders of what lights up are so wide, and change otherwise than the rest of it. */
const BORDER = 4;

/** The rows and columns of a blob that are filled for the most part, without their border. */
function within({ x, y, width, height, mask }: Blob): Rect | null {
  const [rows, columns] = [new Uint32Array(height), new Uint32Array(width)];
  mask.forEach((on, at) => {
    rows[Math.floor(at / width)]! += on;
    columns[at % width]! += on;
  });
  const [full, high] = [rows.map((n) => +(2 * n > width)), columns.map((n) => +(2 * n > height))];
  const [top, left] = [full.indexOf(1) + BORDER, high.indexOf(1) + BORDER];
  const [bottom, right] = [full.lastIndexOf(1) + 1 - BORDER, high.lastIndexOf(1) + 1 - BORDER];
  if (bottom <= top || right <= left) return null;
  return { x: x + left, y: y + top, width: right - left, height: bottom - top };
}

/** Finds what changed between two pictures as things with an outline. */
export class BlobFinder {
  private readonly marks: Uint8Array;
  /** The samples of the thing that is being put together. */
  private readonly members = new Int32Array(MOST_SAMPLES);
  private readonly across: number;

  constructor(private readonly size: { readonly width: number; readonly height: number }) {
    this.marks = new Uint8Array(size.width * size.height);
    this.across = tilesOf(size).across;
  }

  /**
   * The things that changed, by their samples.
   *
   * @param tiles the tiles to look at, by their numbers row by row
   * @returns none where there is too much of it
   */
  find(now: Luma, before: Luma, tiles: Iterable<number>): Blob[] {
    return this.things(this.mark(now, before, tiles));
  }

  /**
   * What stands before something that lit up or went dark as a whole, as a pointer over a button
   * does: the parts of it that changed otherwise.
   *
   * @returns none where it did not change as a whole
   */
  standingBefore(now: Luma, was: Luma, blob: Blob): Blob[] {
    const inner = within(blob);
    const shift = inner && shiftOf(now, was, blob);
    if (!inner || shift === null) return [];
    const { x, y, width, height } = inner;
    const marked: number[] = [];
    for (let v = y; v < y + height; v++)
      for (let u = x; u < x + width; u++) {
        const apart = now.data[v * now.stride + u]! - was.data[v * was.stride + u]! - shift;
        if (apart <= OTHERWISE && apart >= -OTHERWISE) continue;
        this.marks[v * this.size.width + u] = 1;
        marked.push(v * this.size.width + u);
      }
    return this.things(marked);
  }

  /** What hangs together of the samples that were marked, which are cleared; none of too many. */
  private things(marked: readonly number[]): Blob[] {
    const blobs: Blob[] = [];
    if (marked.length <= MOST_SAMPLES)
      for (const seed of marked) if (this.marks[seed]) blobs.push(this.grow(seed));
    for (const at of marked) this.marks[at] = 0;
    return blobs;
  }

  private mark(now: Luma, before: Luma, tiles: Iterable<number>): number[] {
    const { width, height } = this.size;
    const marked: number[] = [];
    for (const tile of tiles) {
      const left = (tile % this.across) * TILE;
      const top = Math.floor(tile / this.across) * TILE;
      for (let y = top; y < Math.min(top + TILE, height); y++)
        for (let x = left; x < Math.min(left + TILE, width); x++) {
          const apart = now.data[y * now.stride + x]! - before.data[y * before.stride + x]!;
          if (apart <= LEAST_CHANGE && apart >= -LEAST_CHANGE) continue;
          this.marks[y * width + x] = 1;
          marked.push(y * width + x);
        }
      if (marked.length > MOST_SAMPLES) break;
    }
    return marked;
  }

  /** All that hangs together with a changed sample. */
  private grow(seed: number): Blob {
    const { marks, members, size } = this;
    const found = takeConnected(marks, size, seed, REACH, members);
    const mask = new Uint8Array(found.width * found.height);
    for (let n = 0; n < found.count; n++) {
      const x = members[n]! % size.width;
      const y = (members[n]! - x) / size.width;
      mask[(y - found.y) * found.width + x - found.x] = 1;
    }
    return { ...found, mask };
  }
}
