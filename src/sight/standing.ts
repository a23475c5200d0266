import type { Rect, Size } from '@/core/scale/rect';
import { BlobFinder, MOST_SAMPLES, REACH, type Blob } from '@/core/vision/blobs';
import { TILE, tilesOf, type Luma } from '@/core/vision/luma';
import { fitsPointer } from '@/core/vision/sightings';

/** Buttons that light up are no larger than this, in pixels. */
const MOST_LIT = 60_000;

/** A thing on the ground, and what of it may be a pointer. */
interface Thing {
  readonly count: number;
  readonly fitting: readonly Blob[];
  /** The tiles that decide what it is. */
  readonly tiles: readonly number[];
}

/**
 * What stands on a ground and may be a pointer. Things are found anew only where something changed:
 * of a page that was scrolled hundreds of words differ from the ground for seconds, while a caret
 * blinks in one place.
 */
export class StandingThings {
  private readonly finder: BlobFinder;
  private readonly across: number;
  private things: readonly Thing[] = [];
  /** Tiles in which something changed since things were found, in the picture or on the ground. */
  private touched = new Set<number>();

  constructor(size: Size) {
    this.finder = new BlobFinder(size);
    this.across = tilesOf(size).across;
  }

  /** Forgets all things, as for another ground. */
  clear(): void {
    this.things = [];
    this.touched.clear();
  }

  /** Takes down that something changed in a tile. */
  touch(tile: number): void {
    this.touched.add(tile);
  }

  /**
   * What may be a pointer in a picture; nothing where too much differs from the ground.
   *
   * @param differing says which tiles differ from it
   */
  find(now: Luma, ground: Luma, differing: { has(tile: number): boolean }): Blob[] {
    const { touched } = this;
    let kept = this.things;
    // What a thing reaches into is looked at with it, and so is all that reaches into that.
    for (let before = -1; before !== kept.length;) {
      before = kept.length;
      const gone = kept.filter(({ tiles }) => tiles.some((tile) => touched.has(tile)));
      for (const { tiles } of gone) for (const tile of tiles) touched.add(tile);
      if (gone.length) kept = kept.filter((thing) => !gone.includes(thing));
    }
    const tiles = [...touched].filter((tile) => differing.has(tile));
    const found = this.finder.find(now, ground, tiles);
    // None may be too many: then they are looked for again with the next picture.
    this.touched = new Set(found.length ? [] : tiles);
    this.things = [...kept, ...found.map((blob) => this.thingOf(now, ground, blob))];
    const samples = this.things.reduce((sum, { count }) => sum + count, 0);
    return samples > MOST_SAMPLES ? [] : this.things.flatMap(({ fitting }) => fitting);
  }

  private thingOf(now: Luma, ground: Luma, blob: Blob): Thing {
    const mayLight = blob.width * blob.height <= MOST_LIT;
    // Over a button that lit up under it, a pointer is seen as a part of that.
    const parts = mayLight ? this.finder.standingBefore(now, ground, blob) : [];
    return {
      count: blob.count,
      fitting: (parts.length ? parts : [blob]).filter(fitsPointer),
      // What stands before a button is told from all of its box.
      tiles: mayLight ? this.tilesIn(blob) : this.tilesOf(blob),
    };
  }

  /** The tiles that a rectangle touches, with what is so near that it would belong to it. */
  private tilesIn({ x, y, width, height }: Rect): number[] {
    const tiles: number[] = [];
    const right = Math.min(this.across - 1, Math.floor((x + width - 1 + REACH.x) / TILE));
    const bottom = Math.floor((y + height - 1 + REACH.y) / TILE);
    for (let row = Math.max(0, Math.floor((y - REACH.y) / TILE)); row <= bottom; row++)
      for (let column = Math.max(0, Math.floor((x - REACH.x) / TILE)); column <= right; column++)
        tiles.push(row * this.across + column);
    return tiles;
  }

  /** The tiles that the samples of a large thing touch. */
  private tilesOf({ x, y, width, mask }: Blob): number[] {
    const tiles = new Set<number>();
    for (let at = mask.indexOf(1); at >= 0; at = mask.indexOf(1, at + 1)) {
      const [u, v] = [x + (at % width), y + Math.floor(at / width)];
      for (const tile of this.tilesIn({ x: u, y: v, width: 1, height: 1 })) tiles.add(tile);
    }
    return [...tiles];
  }
}
