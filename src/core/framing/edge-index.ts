import { countFront } from '../bisect';
import type { Rect } from '../scale/rect';
import type { Page, TextLine } from '../vision/page';

/** A line that shows less than this share of its height beyond an edge is not cut by it. */
const SLIT = 0.12;
/** Half a line that goes on beyond a side is worse than one that is cut along its length. */
const ALONG = 0.6;
/** A panel that would fit is missed more than a line: half a dialog, half a chart. */
const PANEL = 2;
/** Edges that fall into one step of so many pixels are looked up together. */
const STEP = 4;

/** Whether an edge at `at` goes through a span, leaving at least some of it on either side. */
const goesThrough = (at: number, from: number, length: number, least: number): boolean =>
  at > from + least && at < from + length - least;

/** Spans on a line, to be counted: their beginnings and their ends, each in order. */
interface Spans {
  readonly from: readonly number[];
  readonly to: readonly number[];
}

const spansOf = (list: readonly (readonly [from: number, to: number])[]): Spans => ({
  from: list.map(([from]) => from).sort((a, b) => a - b),
  to: list.map(([, to]) => to).sort((a, b) => a - b),
});

/**
 * How many spans share something with a stretch: those that begin before its end, but for those
 * over.
 */
const countIn = ({ from, to }: Spans, low: number, high: number): number =>
  countFront(from, (at) => at < high) - countFront(to, (at) => at <= low);

/** A panel that would fit into the view and is cut all the same. */
function isPanelCut({ x, y, width, height }: Rect, view: Rect): boolean {
  if (width > view.width || height > view.height) return false;
  const [right, bottom] = [view.x + view.width, view.y + view.height];
  if (x >= right || x + width <= view.x || y >= bottom || y + height <= view.y) return false;
  const [aside, below] = [width * 0.04, height * 0.04];
  return (
    goesThrough(view.x, x, width, aside) ||
    goesThrough(right, x, width, aside) ||
    goesThrough(view.y, y, height, below) ||
    goesThrough(bottom, y, height, below)
  );
}

/**
 * What edges of views cut of one page, looked up instead of walked through: plans ask for tens of
 * thousands of views.
 */
export class EdgeIndex {
  private readonly upright = new Map<number, Spans>();
  private readonly level = new Map<number, Spans>();

  constructor(private readonly page: Pick<Page, 'lines' | 'panels'>) {}

  /**
   * How much of the page a view cuts at its edges: text lines as 1 for each side that goes through
   * them, less where it is along them, and panels that would have fitted as 2.
   */
  cutsOf(view: Rect): number {
    const right = view.x + view.width;
    const bottom = view.y + view.height;
    let cuts = 0;
    for (const x of [view.x, right]) cuts += countIn(this.across(x), view.y, bottom);
    for (const y of [view.y, bottom]) cuts += ALONG * countIn(this.along(y), view.x, right);
    for (const panel of this.page.panels) if (isPanelCut(panel, view)) cuts += PANEL;
    return cuts;
  }

  /** The lines that an upright edge goes through, as spans down the page. */
  private across(x: number): Spans {
    return this.find(this.upright, x, (line, at) =>
      goesThrough(at, line.x, line.width, line.letters / 2) ? [line.y, line.y + line.height] : null,
    );
  }

  /** The lines that a level edge goes along, as spans across the page. */
  private along(y: number): Spans {
    return this.find(this.level, y, (line, at) =>
      goesThrough(at, line.y, line.height, line.height * SLIT)
        ? [line.x, line.x + line.width]
        : null,
    );
  }

  private find(
    known: Map<number, Spans>,
    edge: number,
    spanOf: (line: TextLine, at: number) => readonly [number, number] | null,
  ): Spans {
    const step = Math.round(edge / STEP);
    let spans = known.get(step);
    if (!spans) {
      spans = spansOf(
        this.page.lines.flatMap((line) => {
          const span = spanOf(line, step * STEP);
          return span ? [span] : [];
        }),
      );
      known.set(step, spans);
    }
    return spans;
  }
}

const indices = new WeakMap<object, EdgeIndex>();

/** The index of a page, which is made once. */
export function edgesOf(page: Pick<Page, 'lines' | 'panels'>): EdgeIndex {
  const known = indices.get(page) ?? new EdgeIndex(page);
  indices.set(page, known);
  return known;
}
