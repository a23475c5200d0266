import type { Ticks } from './ticks';

/** A half-open stretch of time `[start, end)`, in ticks. */
export interface Range {
  readonly start: Ticks;
  readonly end: Ticks;
}

/** Whether an instant lies in a range; its end does not. */
export const contains = (range: Range, time: Ticks): boolean =>
  time >= range.start && time < range.end;

/** Whether two ranges share any time; touching ends do not count. */
export const overlaps = (a: Range, b: Range): boolean => a.start < b.end && b.start < a.end;
