import { sourceTime } from '../project/clip-time';
import { clipAt } from '../project/query';
import type { Sources } from '../project/sources';
import type { Project } from '../project/model';
import type { InFootage, Rect } from '../scale/rect';
import { ticksToSeconds, type Ticks } from '../time/ticks';
import type { Page, TextLine } from '../vision/page';
import { countFront } from '../bisect';

/** A line that shows less than this share of its height beyond an edge is not cut by it. */
const SLIT = 0.12;
/** Half a line that goes on beyond a side is worse than one that is cut along its length. */
const ALONG = 0.6;
const PANEL = 0.5;

/** Whether an edge at `at` goes through a span, leaving at least some of it on either side. */
const goesThrough = (at: number, from: number, length: number, least: number): boolean =>
  at > from + least && at < from + length - least;

function isLineCut({ x, y, width, height, letters }: TextLine, view: Rect): number {
  const [right, bottom] = [view.x + view.width, view.y + view.height];
  if (x >= right || x + width <= view.x || y >= bottom || y + height <= view.y) return 0;
  if (goesThrough(view.x, x, width, letters / 2) || goesThrough(right, x, width, letters / 2))
    return 1;
  const slit = height * SLIT;
  const along = goesThrough(view.y, y, height, slit) || goesThrough(bottom, y, height, slit);
  return along ? ALONG : 0;
}

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
 * How much of a page a view cuts at its edges: text lines as 1 each, or less where it is along them,
 * and panels that would have fitted as a half.
 */
export function cutsOf(page: Pick<Page, 'lines' | 'panels'>, view: Rect): number {
  let cuts = 0;
  for (const line of page.lines) cuts += isLineCut(line, view);
  for (const panel of page.panels) if (isPanelCut(panel, view)) cuts += PANEL;
  return cuts;
}

/** How far a view may be shifted, as a share of its size, and in how many steps to each side. */
const SHIFT = 0.14;
const STEPS = 7;

/**
 * The view of the same size, shifted by a little at most, that cuts least of a page; what it is for
 * stays within it, and it stays within the whole.
 *
 * @param keep what has to stay in view, with its room
 */
export function shiftedView(
  view: InFootage,
  keep: Rect,
  whole: Rect,
  page: Pick<Page, 'lines' | 'panels'>,
): InFootage {
  const places = (
    at: number,
    size: number,
    from: number,
    length: number,
    all: [number, number],
  ) => {
    const found = [at];
    for (let i = -STEPS; i <= STEPS; i++) {
      const to = Math.round((at + (i / STEPS) * SHIFT * size) / 2) * 2;
      const inside = to >= all[0] && to + size <= all[1];
      if (inside && to <= from && to + size >= from + length) found.push(to);
    }
    return found;
  };
  const { width, height } = view;
  const across = places(view.x, width, keep.x, keep.width, [whole.x, whole.x + whole.width]);
  const down = places(view.y, height, keep.y, keep.height, [whole.y, whole.y + whole.height]);
  let best = view;
  // Nearer ones are better, all else being equal.
  const costOf = (one: InFootage) =>
    cutsOf(page, one) + (Math.abs(one.x - view.x) / width + Math.abs(one.y - view.y) / height) * 2;
  let least = costOf(view);
  for (const x of across)
    for (const y of down) {
      const one = { ...view, x, y };
      const cost = costOf(one);
      if (cost < least) [best, least] = [one, cost];
    }
  return best;
}

/** The page of a recording that stands on the screen at an instant of the timeline; null if none. */
export function pageAt(
  project: Pick<Project, 'lanes'>,
  sources: Sources,
  footageId: string,
  time: Ticks,
): Page | null {
  const pages = sources.sights?.[footageId]?.pages;
  if (!pages?.length) return null;
  for (const lane of project.lanes) {
    const clip = clipAt(lane, time);
    if (clip?.footageId !== footageId) continue;
    const ms = ticksToSeconds(sourceTime(clip, time)) * 1000;
    const at = countFront(pages, ({ from }) => from <= ms) - 1;
    // Between two pages it is the next that is seen before long.
    const page = pages[at];
    return page && ms <= page.to ? page : (pages[at + 1] ?? page ?? null);
  }
  return null;
}
