import { TILE, tilesOf } from '@/core/vision/luma';
import { scattered } from '@/core/vision/spread';
import type { LookPoint } from '@/core/vision/look';
import type { Candidate } from '@/core/vision/pointer-path';
import type { Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { MARGIN, type Pictures } from './pictures';

/** What is searched: the newest of some pictures. */
export type SearchedPicture = Pick<Pictures, 'size' | 'stride' | 'address' | 'luma'>;

/** Samples count as apart by this much at most: what lies over the pointer spoils only its part. */
const CLIP = 48;
/** Places that fit worse than this are none. */
const WORST = 0.32;
/** So many places are looked at in a run of tiles, where a plain ground seems to fit all over. */
const MOST_HITS = 4096;
/** So many places are kept for each look. */
const MOST = 4;

interface Placed {
  readonly x: number;
  readonly y: number;
  readonly sum: number;
}

/** What is looked for: points of it, and its size. */
export interface Sought extends Size {
  readonly points: readonly LookPoint[];
}

interface SearchOptions {
  /** Places that fit worse are none. */
  readonly worst?: number;
  /** So many places are told. */
  readonly most?: number;
  /** Whether points are in an order in which the first few tell most; else they get another. */
  readonly inOrder?: boolean;
}

/** Looks for a look of the pointer, or another small thing, in pictures. */
export class LookSearch {
  private readonly points: number;
  private readonly hits: number;
  private readonly limit: number;
  private readonly most: number;

  constructor(
    private readonly heap: KernelHeap,
    private readonly pictures: SearchedPicture,
    private readonly look: Sought,
    private readonly number: number,
    { worst = WORST, most = MOST, inOrder = false }: SearchOptions = {},
  ) {
    this.most = most;
    const { points } = look;
    const table = (inOrder ? points : scattered(points)).flatMap(({ x, y, low, high }) => [
      y * pictures.stride + x,
      low | (high << 8),
    ]);
    this.points = heap.put(new Int32Array(table));
    this.hits = heap.allocate(MOST_HITS * 8);
    this.limit = Math.floor(worst * points.length * CLIP);
  }

  /**
   * The places in the newest picture at which the look fits best, among those that touch some
   * tiles.
   *
   * @param corners its upper left corner lies in a tile of which this is true, by column and row
   */
  find(
    tiles: readonly number[],
    corners: (column: number, row: number) => boolean = () => true,
  ): Candidate[] {
    const { size } = this.pictures;
    const { across, down } = tilesOf(size);
    const wanted = new Uint8Array(across * down);
    const reachX = Math.ceil(this.look.width / TILE);
    const reachY = Math.ceil(this.look.height / TILE);
    for (const tile of tiles) {
      const column = tile % across;
      const row = (tile - column) / across;
      for (let y = Math.max(0, row - reachY); y <= row; y++)
        wanted.fill(1, y * across + Math.max(0, column - reachX), y * across + column + 1);
    }
    const isWanted = (column: number, row: number) =>
      wanted[row * across + column]! > 0 && corners(column, row);
    const placed: Placed[] = [];
    for (let row = 0; row < down; row++)
      for (let from = 0; from < across; from++) {
        if (!isWanted(from, row)) continue;
        let to = from;
        while (to < across && isWanted(to, row)) to++;
        this.searchRun(from * TILE, row * TILE, (to - from) * TILE, placed);
        from = to;
      }
    return this.best(placed);
  }

  /** Looks at the places of one run of tiles. */
  private searchRun(left: number, top: number, columns: number, into: Placed[]): void {
    const { heap, pictures, points, look, limit } = this;
    const { stride, size } = pictures;
    const rows = Math.min(TILE, size.height + MARGIN - this.look.height - top);
    if (rows <= 0) return;
    const corner = pictures.address(0) + top * stride + left;
    const count = look.points.length;
    const { matchLook } = heap.exports;
    const hits = matchLook(
      ...([
        corner,
        stride,
        columns,
        rows,
        points,
        count,
        CLIP,
        limit,
        this.hits,
        MOST_HITS,
      ] as const),
    );
    const { buffer } = heap.exports.memory;
    const found = new Int32Array(buffer, this.hits, hits * 2);
    for (let i = 0; i < found.length; i += 2) {
      const x = left + (found[i]! % columns);
      const y = top + Math.floor(found[i]! / columns);
      if (x + look.width <= pictures.size.width) into.push({ x, y, sum: found[i + 1]! });
    }
  }

  /** The best places that are apart; of plain grounds there are too many places to put in order. */
  private best(placed: readonly Placed[]): Candidate[] {
    const apart = Math.max(4, Math.min(this.look.width, this.look.height) / 4);
    const kept: Placed[] = [];
    const free = ({ x, y }: Placed) =>
      kept.every((one) => Math.max(Math.abs(x - one.x), Math.abs(y - one.y)) >= apart);
    while (kept.length < this.most) {
      let next: Placed | null = null;
      for (const one of placed) if (one.sum < (next?.sum ?? Infinity) && free(one)) next = one;
      if (!next) break;
      kept.push(next);
    }
    return kept.map((one) => this.refine(one));
  }

  /** The sum at a place of the newest picture. */
  private sumAt(x: number, y: number): number {
    const { data, stride } = this.pictures.luma(0);
    let sum = 0;
    for (const point of this.look.points) {
      const sample = data[(y + point.y) * stride + x + point.x] ?? 0;
      sum += Math.min(CLIP, Math.max(0, point.low - sample, sample - point.high));
    }
    return sum;
  }

  /** A place to fractions of a pixel: where lines of equal slope through its neighbours meet. */
  private refine({ x, y, sum }: Placed): Candidate {
    const between = (before: number, after: number) => {
      const slope = Math.max(before, after) - sum;
      return slope > 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * slope))) : 0;
    };
    return {
      look: this.number,
      x: x + between(this.sumAt(x - 1, y), this.sumAt(x + 1, y)),
      y: y + between(this.sumAt(x, y - 1), this.sumAt(x, y + 1)),
      misfit: sum / (this.look.points.length * CLIP),
    };
  }

  [Symbol.dispose](): void {
    this.heap.release(this.points);
    this.heap.release(this.hits);
  }
}
