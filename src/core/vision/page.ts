import type { Rect } from '../scale/rect';

/** A line of text on a page: its box, and how high its small letters are. */
export interface TextLine extends Rect {
  readonly letters: number;
}

/** A stretch in which a page stands still, and what is on it. */
export interface Page {
  /** Milliseconds of the recording. */
  readonly from: number;
  readonly to: number;
  readonly lines: readonly TextLine[];
  /** Windows, dialogs, tables, cards and other boxes. */
  readonly panels: readonly Rect[];
}
