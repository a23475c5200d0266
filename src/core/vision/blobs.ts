import type { Rect } from '../scale/rect';
import { LEAST_CHANGE, TILE, tilesOf, type Luma } from './luma';

/** A small thing that changed between two pictures: its box, and which samples of that changed. */
export interface Blob extends Rect {
  readonly mask: Uint8Array;
  readonly count: number;
}

/** Changed samples that are no further apart than this belong together. */
const REACH = 2;
/** With more changed samples than this, a picture is a new one, not one with things that moved. */
const MOST_SAMPLES = 60_000;

/** Finds what changed between two pictures as things with an outline. */
export class BlobFinder {
  private readonly marks: Uint8Array;
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
    const marked = this.mark(now, before, tiles);
    const blobs: Blob[] = [];
    if (marked.length <= MOST_SAMPLES)
      for (const seed of marked) if (this.marks[seed] === 1) blobs.push(this.grow(seed));
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

  /** All that hangs together with a changed sample; marks it as taken. */
  private grow(seed: number): Blob {
    const { width, height } = this.size;
    const { marks } = this;
    const members = [seed];
    marks[seed] = 2;
    let [left, right, top, bottom] = [width, 0, height, 0];
    for (let next = 0; next < members.length; next++) {
      const x = members[next]! % width;
      const y = (members[next]! - x) / width;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      for (let v = Math.max(0, y - REACH); v <= Math.min(height - 1, y + REACH); v++)
        for (let u = Math.max(0, x - REACH); u <= Math.min(width - 1, x + REACH); u++) {
          const at = v * width + u;
          if (marks[at] !== 1) continue;
          marks[at] = 2;
          members.push(at);
        }
    }
    const [w, h] = [right - left + 1, bottom - top + 1];
    const mask = new Uint8Array(w * h);
    for (const at of members) {
      const x = at % width;
      mask[((at - x) / width - top) * w + x - left] = 1;
    }
    return { x: left, y: top, width: w, height: h, mask, count: members.length };
  }
}
