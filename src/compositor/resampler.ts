import { countFront } from '@/core/bisect';
import { FILTER_WINDOW, filterTaps, isCopy } from '@/core/scale/filter';
import type { Rect } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';
import { LruMap } from './lru';

/** A range of one axis of a source plane, in its samples; may have fractions. */
export interface AxisRange {
  readonly origin: number;
  readonly span: number;
}

interface StoredTable {
  readonly starts: number;
  readonly weights: number;
  readonly taps: number;
  /** First source sample of each output sample, as at `starts`. */
  readonly firsts: Int32Array;
  readonly copyFrom: number | null;
}

/**
 * Where a plane's samples come from: the ranges of both axes, and whether it is turned left to
 * right.
 */
export interface Mapping {
  readonly columns: AxisRange;
  readonly rows: AxisRange;
  readonly mirror: boolean;
}

/** Resamples planes with exact source ranges; keeps the weights it used of late. */
export class Resampler {
  private readonly stored: LruMap<StoredTable>;
  private scratch = { at: 0, size: 0 };

  /** The window of the filter, in the kernels' memory. */
  private readonly window: number;

  constructor(private readonly heap: KernelHeap) {
    this.window = heap.put(FILTER_WINDOW.values);
    this.stored = new LruMap(96, (table) => {
      heap.release(table.starts);
      heap.release(table.weights);
    });
  }

  /** Fills `target` with the given ranges of `source`. A 1:1 range on whole samples is copied. */
  resample(source: Plane, mapping: Mapping, target: Plane): void {
    const { across, down } = this.tables(source, mapping, target);
    if (across.copyFrom !== null && down.copyFrom !== null && !mapping.mirror) {
      const from = source.at + down.copyFrom * source.stride + across.copyFrom;
      this.heap.exports.copyRows(
        from,
        source.stride,
        target.at,
        target.stride,
        target.width,
        target.height,
      );
    } else
      this.weigh(source, across, down, target, {
        x: 0,
        y: 0,
        width: target.width,
        height: target.height,
      });
  }

  /** Whether a mapping only copies samples. */
  copies(source: Plane, mapping: Mapping, target: Plane): boolean {
    const { across, down } = this.tables(source, mapping, target);
    return across.copyFrom !== null && down.copyFrom !== null && !mapping.mirror;
  }

  /**
   * Fills again that part of `target` which a rectangle of the source has a share in; not for
   * mirrored mappings.
   * @returns the rectangle of the target, in its samples
   */
  renew(source: Plane, mapping: Mapping, target: Plane, changed: Rect): Rect {
    const { across, down } = this.tables(source, mapping, target);
    const [x, right] = reached(across, changed.x, changed.x + changed.width);
    const [y, bottom] = reached(down, changed.y, changed.y + changed.height);
    const window = { x, y, width: right - x, height: bottom - y };
    if (window.width > 0 && window.height > 0) this.weigh(source, across, down, target, window);
    return window;
  }

  private weigh(
    source: Plane,
    across: StoredTable,
    down: StoredTable,
    target: Plane,
    { x, y, width, height }: Rect,
  ): void {
    const ends = [across.firsts[x]!, across.firsts[x + width - 1]!];
    const left = Math.min(...ends);
    const last = Math.max(...ends) + across.taps;
    this.heap.exports.resamplePlane(
      source.at,
      source.stride,
      source.width,
      source.height,
      target.at + y * target.stride + x,
      target.stride,
      width,
      height,
      across.starts + x * 4,
      across.weights + x * across.taps * 2,
      across.taps,
      down.starts + y * 4,
      down.weights + y * down.taps * 2,
      down.taps,
      left,
      last,
      this.room(last - left, down.taps),
    );
  }

  private tables(
    source: Plane,
    { columns, rows, mirror }: Mapping,
    target: Plane,
  ): { across: StoredTable; down: StoredTable } {
    return {
      across: this.table(source.width, columns, target.width, mirror),
      down: this.table(source.height, rows, target.height, false),
    };
  }

  /** Scratch memory for so many columns and row taps. */
  private room(columns: number, rows: number): number {
    const size = (columns + 32) * 32 + rows * 4 + 192;
    if (size > this.scratch.size) {
      if (this.scratch.size) this.heap.release(this.scratch.at);
      this.scratch = { at: this.heap.allocate(size), size };
    }
    return this.scratch.at;
  }

  private table(
    length: number,
    { origin, span }: AxisRange,
    count: number,
    mirror: boolean,
  ): StoredTable {
    const key = `${length} ${origin} ${span} ${count} ${mirror}`;
    return this.stored.get(key, () => this.fill(length, origin, span, count, mirror));
  }

  private fill(
    length: number,
    origin: number,
    span: number,
    count: number,
    mirror: boolean,
  ): StoredTable {
    const { heap } = this;
    const taps = filterTaps(span, count);
    const starts = heap.allocate(count * 4);
    const weights = heap.allocate(count * taps * 2);
    using exact = heap.borrow(taps * 8);
    const { lobes, steps } = FILTER_WINDOW;
    heap.exports.fillFilter(
      length,
      origin,
      span,
      count,
      mirror ? 1 : 0,
      taps,
      lobes,
      steps,
      this.window,
      exact.at,
      starts,
      weights,
    );
    const bytes = (at: number, size: number) => heap.bytes(at, size).slice().buffer;
    const firsts = new Int32Array(bytes(starts, count * 4));
    // Only a mapping of as many samples as there are can be a copy.
    const copy =
      span === count
        ? isCopy({
            taps,
            starts: firsts,
            weights: new Int16Array(bytes(weights, count * taps * 2)),
          })
        : null;
    return { starts, weights, taps, firsts, copyFrom: copy?.first ?? null };
  }
}

/**
 * The output samples, from one to before another, that source samples from `from` to before `to`
 * have a share in.
 */
function reached({ firsts, taps }: StoredTable, from: number, to: number): [number, number] {
  // Starts never fall.
  return [
    countFront(firsts, (start) => start + taps <= from),
    countFront(firsts, (start) => start < to),
  ];
}
