import type { Rect } from '../scale/rect';
import { edgesOf, runsOf } from './gradients';
import type { Luma } from './luma';
import type { TextLine } from './page';
import { panelsOf } from './panels';
import { textLinesOf } from './text-lines';

/** Straight edges from this length on are no part of letters, in pixels. */
const LEVEL = 36;
const UPRIGHT = 44;
/** Of a page no more lines and panels are told than this, the largest. */
const MOST_LINES = 800;
const MOST_PANELS = 120;

/** What there is to read in a picture that stands still: its lines of text and its panels. */
export function contentOf(picture: Luma): {
  readonly lines: readonly TextLine[];
  readonly panels: readonly Rect[];
} {
  const edges = edgesOf(picture);
  const level = runsOf(edges, 'x', LEVEL);
  const upright = runsOf(edges, 'y', UPRIGHT);
  const lines = textLinesOf(edges, level, upright);
  const largest = [...lines].sort((a, b) => b.width * b.height - a.width * a.height);
  const told = new Set(largest.slice(0, MOST_LINES));
  return {
    lines: lines.filter((line) => told.has(line)),
    panels: panelsOf(level, upright).slice(0, MOST_PANELS),
  };
}
