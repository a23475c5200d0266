import { tilesOf, TILE, type Luma } from '@/core/vision/luma';
import type { Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';

/** Kernels may read so many samples beyond a picture's right edge and below it. */
export const MARGIN = 112;
/** A tile that has this many changed samples has changed. */
export const FEWEST = 2;

/** The last few pictures of a recording, in the kernels' memory. */
export class Pictures {
  /** Samples from one row to the next. */
  readonly stride: number;
  private readonly places: number[] = [];
  private readonly bytes: number;
  private readonly counts: number;
  private newest = -1;

  /**
   * @param size of the pictures in memory, multiples of 16
   * @param kept so many of them are kept
   */
  constructor(
    readonly heap: KernelHeap,
    readonly size: Size,
    private readonly kept: number,
  ) {
    this.stride = size.width;
    this.bytes = this.stride * (size.height + MARGIN) + MARGIN;
    for (let i = 0; i < kept; i++) {
      const at = heap.allocate(this.bytes);
      heap.bytes(at, this.bytes).fill(0);
      this.places.push(at);
    }
    const { across, down } = tilesOf(size);
    this.counts = heap.allocate(2 * across * down);
  }

  /** How many pictures there were so far. */
  get count(): number {
    return this.newest + 1;
  }

  /**
   * Takes one more picture.
   *
   * @param fill writes its rows into the memory it is given; false when there is none
   */
  take(fill: (into: Uint8Array) => boolean): boolean {
    const at = this.places[(this.newest + 1) % this.kept]!;
    const { width, height } = this.size;
    if (!fill(this.heap.bytes(at, width * height))) return false;
    this.newest++;
    return true;
  }

  /** The address of a picture, so many before the newest. */
  address(back: number): number {
    return this.places[(this.newest - back) % this.kept]!;
  }

  /** A picture, so many before the newest; valid until memory is allocated or the place reused. */
  luma(back: number): Luma {
    const { width, height } = this.size;
    return {
      data: this.heap.bytes(this.address(back), width * height),
      ...{ width, height, stride: this.stride },
    };
  }

  /** Which tiles of the newest picture differ from an earlier one, by their numbers. */
  changedSince(back: number, least: number, fewest: number): number[] {
    const { heap, stride } = this;
    const { width, height } = this.size;
    const { across, down } = tilesOf(this.size);
    const [now, before] = [this.address(0), this.address(back)];
    const { counts } = this;
    if (!heap.exports.countChanges(now, stride, before, stride, width, height, least, counts))
      return [];
    const found: number[] = [];
    const all = heap.bytes(counts, across * down);
    for (let tile = 0; tile < all.length; tile++) if (all[tile]! >= fewest) found.push(tile);
    return found;
  }

  /** The tiles that differed at all when changes were asked for last, to the bit. */
  differing(): number[] {
    const { across, down } = tilesOf(this.size);
    const all = this.heap.bytes(this.counts + across * down, across * down);
    const found: number[] = [];
    for (let tile = all.indexOf(1); tile >= 0; tile = all.indexOf(1, tile + 1)) found.push(tile);
    return found;
  }

  /** Those of the tiles told last that have at least so many changed samples. */
  clearlyChanged(tiles: readonly number[], fewest: number): number[] {
    const { across, down } = tilesOf(this.size);
    const all = this.heap.bytes(this.counts, across * down);
    return tiles.filter((tile) => all[tile]! >= fewest);
  }

  [Symbol.dispose](): void {
    for (const at of [...this.places, this.counts]) this.heap.release(at);
  }
}

/** A size as it lies in memory: whole tiles. */
export const inTiles = ({ width, height }: Size): Size => ({
  width: Math.ceil(width / TILE) * TILE,
  height: Math.ceil(height / TILE) * TILE,
});
