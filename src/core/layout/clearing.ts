import { overlaps, type Range } from '../time/ranges';
import type { LayoutSpan } from './model';

/** What a layout is called in which the presenter stands elsewhere to keep something clear. */
export const KEEPS_CLEAR = 'Keeps clear';

/** Whether a layout was set to keep something clear, in a stretch. */
export const isClearing = (span: LayoutSpan, range: Range): boolean =>
  span.layout.name === KEEPS_CLEAR && overlaps(span, range);
