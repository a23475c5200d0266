import type { Ticks } from '@/core/time/ticks';

interface Span {
  readonly id: string;
  readonly start: Ticks;
  readonly end: Ticks;
}

/** Rows in which spans lie so that none covers another. */
export interface Stack {
  readonly rows: number;
  /** The row of each span by its id, from the top. */
  readonly rowOf: ReadonlyMap<string, number>;
}

/** More rows are not made; what does not fit lies over others in the last one. */
export const MOST_ROWS = 6;

/** Each span in the first row that is free by then; spans are ordered by start. */
export function stackSpans(spans: readonly Span[]): Stack {
  const ends: Ticks[] = [];
  const rowOf = new Map<string, number>();
  for (const { id, start, end } of spans) {
    const free = ends.findIndex((until) => until <= start);
    const row = free >= 0 ? free : Math.min(ends.length, MOST_ROWS - 1);
    ends[row] = Math.max(end, ends[row] ?? 0);
    rowOf.set(id, row);
  }
  return { rows: Math.max(1, ends.length), rowOf };
}
