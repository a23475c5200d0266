import type { Size } from '@/core/scale/rect';
import { TILE, tilesOf } from '@/core/vision/luma';
import type { PictureStream } from './recording';
import type { Run } from './runs';

/** What is kept takes up no more bytes than this: some minutes of most screen recordings. */
const MOST_BYTES = 96e6;
/** A picture of which this share of the tiles differs is kept whole. */
const WHOLE = 0.3;
const TILE_BYTES = TILE * TILE;

/** A picture, or the tiles in which it differs from the one before. */
interface Kept {
  /** Null of a picture that is kept whole. */
  readonly tiles: Uint32Array | null;
  readonly samples: Uint8Array;
}

/**
 * The first pictures of a recording, each by what differs from the one before, so that stretches of
 * them can be looked at again without a decoder, which begins at the key frame before each stretch.
 */
export class KeptPictures {
  private readonly kept: Kept[] = [];
  private readonly across: number;
  private readonly most: number;
  private left: number;

  /**
   * @param size of the pictures, in whole tiles, whose rows follow each other
   * @param bytes that may be taken up in all
   */
  constructor(
    private readonly size: Size,
    bytes = MOST_BYTES,
  ) {
    const { across, down } = tilesOf(size);
    this.across = across;
    this.most = WHOLE * across * down;
    this.left = bytes;
  }

  /**
   * Keeps the next picture if there is room for it; once there is none, no other is kept.
   *
   * @param differing the tiles in which it is not the same as the one before, to the bit; null of
   *   the first picture
   */
  keep(picture: Uint8Array, differing: readonly number[] | null): void {
    const isWhole = !differing || differing.length > this.most;
    const bytes = isWhole ? picture.length : differing.length * (TILE_BYTES + 4);
    if (this.left < bytes) {
      this.left = 0;
      return;
    }
    this.left -= bytes;
    if (isWhole) this.kept.push({ tiles: null, samples: picture.slice() });
    else this.kept.push(this.differences(picture, differing));
  }

  /** Whether all pictures of a run are kept. */
  covers({ to }: Run): boolean {
    return to <= this.kept.length;
  }

  /** The pictures that are kept, from one of them on; their last is the end. */
  open(from: number): PictureStream {
    const { kept } = this;
    const picture = new Uint8Array(this.size.width * this.size.height);
    let next = kept.findLastIndex(({ tiles }, i) => !tiles && i <= from);
    while (next < from) this.apply(kept[next++]!, picture);
    return {
      read: (into) => {
        const one = kept[next++];
        if (!one) return false;
        this.apply(one, picture);
        into.set(picture);
        return true;
      },
      [Symbol.dispose]() {},
    };
  }

  private differences(picture: Uint8Array, differing: readonly number[]): Kept {
    const tiles = Uint32Array.from(differing);
    const samples = new Uint8Array(tiles.length * TILE_BYTES);
    this.eachRow(tiles, (at, row) => samples.set(picture.subarray(at, at + TILE), row * TILE));
    return { tiles, samples };
  }

  private apply({ tiles, samples }: Kept, picture: Uint8Array): void {
    if (!tiles) picture.set(samples);
    else
      this.eachRow(tiles, (at, row) =>
        picture.set(samples.subarray(row * TILE, (row + 1) * TILE), at),
      );
  }

  /** Where each row of some tiles begins in a picture, and its number among all of those rows. */
  private eachRow(tiles: Uint32Array, row: (at: number, row: number) => void): void {
    const { width } = this.size;
    for (let i = 0; i < tiles.length; i++) {
      const column = tiles[i]! % this.across;
      const corner = ((tiles[i]! - column) / this.across) * TILE * width + column * TILE;
      for (let y = 0; y < TILE; y++) row(corner + y * width, i * TILE + y);
    }
  }
}
