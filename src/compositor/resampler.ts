import { filterTable, isCopy, type FilterTable } from '@/core/scale/filter';
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
  readonly first: number;
  readonly last: number;
  readonly copyFrom: number | null;
}

const COLUMN_ALIGN = 8;
const ROW_ALIGN = 2;

/** Resamples planes with exact source ranges; keeps the weights it used of late. */
export class Resampler {
  private readonly tables: LruMap<StoredTable>;
  private scratch = { at: 0, size: 0 };

  constructor(private readonly heap: KernelHeap) {
    this.tables = new LruMap(96, (table) => {
      heap.release(table.starts);
      heap.release(table.weights);
    });
  }

  /** Fills `target` with the given range of `source`. A 1:1 range on whole samples is copied. */
  resample(source: Plane, columns: AxisRange, rows: AxisRange, target: Plane, mirror = false): void {
    const across = this.table(source.width, columns, target.width, mirror, COLUMN_ALIGN);
    const down = this.table(source.height, rows, target.height, false, ROW_ALIGN);
    if (across.copyFrom !== null && down.copyFrom !== null && !mirror) {
      const from = source.at + down.copyFrom * source.stride + across.copyFrom;
      this.heap.copyRows(from, source.stride, target.at, target.stride, target.width, target.height);
      return;
    }
    const left = across.first;
    const right = Math.min(across.last + across.taps, source.width);
    this.heap.exports.resamplePlane(
      source.at,
      source.stride,
      source.width,
      source.height,
      target.at,
      target.stride,
      target.width,
      target.height,
      across.starts,
      across.weights,
      across.taps,
      down.starts,
      down.weights,
      down.taps,
      left,
      right,
      this.row(Math.max(source.width, across.last + across.taps)),
    );
  }

  private row(samples: number): number {
    const size = samples * 2 + 64;
    if (size > this.scratch.size) {
      if (this.scratch.size) this.heap.release(this.scratch.at);
      this.scratch = { at: this.heap.allocate(size), size };
    }
    return this.scratch.at;
  }

  private table(length: number, { origin, span }: AxisRange, count: number, mirror: boolean, align: number): StoredTable {
    const key = `${length} ${origin} ${span} ${count} ${mirror} ${align}`;
    return this.tables.get(key, () => this.store(filterTable(length, origin, span, count, mirror, align)));
  }

  private store(table: FilterTable): StoredTable {
    return {
      starts: this.heap.put(table.starts),
      weights: this.heap.put(table.weights),
      taps: table.taps,
      first: table.starts.reduce((a, b) => Math.min(a, b)),
      last: table.starts.reduce((a, b) => Math.max(a, b)),
      copyFrom: isCopy(table)?.first ?? null,
    };
  }
}
