import type { Range } from '@/core/time/ranges';
import type { SelectionSlice } from './state';

/** The range between the in and out points, if both are set. */
export const rangeOf = ({ range }: Pick<SelectionSlice, 'range'>): Range | null =>
  range.in !== null && range.out !== null && range.out > range.in
    ? { start: range.in, end: range.out }
    : null;
