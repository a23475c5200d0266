import { sourceMs } from '../project/clip-time';
import { clipAt } from '../project/query';
import type { Sources } from '../project/sources';
import type { Project } from '../project/model';
import { evenRound, intersect, padded, type InFootage, type Rect } from '../scale/rect';
import type { Ticks } from '../time/ticks';
import type { Page } from '../vision/page';
import { countFront } from '../bisect';
import { edgesOf, type EdgeIndex } from './edge-index';
import { keepInside } from './path';

/** How far a view may be shifted, as a share of its size, and in how many steps to each side. */
const SHIFT = 0.14;
const STEPS = 5;
/** Each step away costs, so that of equal places the nearest is taken. */
const AWAY = 2;
/** A wider view is tried where it cuts so much less, for each doubling. */
const GROWTH = 10;
const WIDER = [1.07, 1.16, 1.3] as const;

/** Places for one side of a view, even, from which it still holds a stretch and stays within. */
function placesOf(
  at: number,
  size: number,
  from: number,
  length: number,
  low: number,
  high: number,
) {
  const found: number[] = [];
  for (let i = -STEPS; i <= STEPS; i++) {
    const to = Math.round((at + (i / STEPS) * SHIFT * size) / 2) * 2;
    const inside = to >= low && to + size <= high;
    if (inside && to <= from && to + size >= from + length) found.push(to);
  }
  return found;
}

/** The cheapest of some views; the first of equal ones. */
function cheapest(views: readonly InFootage[], costOf: (view: InFootage) => number): InFootage {
  let best = views[0]!;
  let least = costOf(best);
  for (const view of views.slice(1)) {
    const cost = costOf(view);
    if (cost < least) [best, least] = [view, cost];
  }
  return best;
}

/** Shifts a view across, then down, then across once more, to where it cuts least. */
function shiftedWithin(
  view: InFootage,
  near: InFootage,
  keep: Rect,
  whole: Rect,
  edges: EdgeIndex,
): InFootage {
  const { width, height } = view;
  const costOf = (one: InFootage) =>
    edges.cutsOf(one) +
    (Math.abs(one.x - near.x) / width + Math.abs(one.y - near.y) / height) * AWAY;
  const xs = placesOf(view.x, width, keep.x, keep.width, whole.x, whole.x + whole.width);
  const ys = placesOf(view.y, height, keep.y, keep.height, whole.y, whole.y + whole.height);
  const across = (one: InFootage) => cheapest([one, ...xs.map((x) => ({ ...one, x }))], costOf);
  const down = (one: InFootage) => cheapest([one, ...ys.map((y) => ({ ...one, y }))], costOf);
  return across(down(across(view)));
}

/**
 * The view of the same size, shifted by a little at most, that cuts least of a page; what it is for
 * stays within it, and it stays within the whole.
 *
 * @param keep what has to stay in view, with its room
 */
export const shiftedView = (
  view: InFootage,
  keep: Rect,
  whole: Rect,
  page: Pick<Page, 'lines' | 'panels'>,
): InFootage => shiftedWithin(view, view, keep, whole, edgesOf(page));

/**
 * A somewhat wider view that cuts much less of a page than one of the same size can, shifted as
 * that may be; null where none is worth its width.
 */
export function widerView(
  shifted: InFootage,
  keep: Rect,
  whole: Rect,
  page: Pick<Page, 'lines' | 'panels'>,
): InFootage | null {
  const edges = edgesOf(page);
  let best: InFootage | null = null;
  let least = edges.cutsOf(shifted);
  for (const factor of WIDER) {
    const width = shifted.width * factor;
    if (width > whole.width || least < 1) break;
    const height = shifted.height * factor;
    const grown = keepInside(
      {
        ...{ width, height },
        x: evenRound(shifted.x - (width - shifted.width) / 2),
        y: evenRound(shifted.y - (height - shifted.height) / 2),
      },
      whole,
    );
    const view = shiftedWithin(grown, grown, keep, whole, edges);
    const cost = edges.cutsOf(view) + GROWTH * Math.log2(factor);
    if (cost < least) [best, least] = [view, cost];
  }
  return best;
}

/** Lines so near to what is looked at are read with it, in heights of their letters. */
const READ_WITH = 4;

/**
 * The height of the smallest letters that stand at something, in its pixels; null where none do.
 */
export function lettersIn({ lines }: Pick<Page, 'lines'>, rect: Rect): number | null {
  let least: number | null = null;
  for (const line of lines) {
    const shared = intersect(padded(rect, line.letters * READ_WITH), line);
    if (shared.width > 0 && shared.height > 0) least = Math.min(least ?? Infinity, line.letters);
  }
  return least;
}

/**
 * The page of a recording that stands on the screen at an instant of the timeline; null if none.
 */
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
    const ms = sourceMs(clip, time);
    const at = countFront(pages, ({ from }) => from <= ms) - 1;
    // Between two pages it is the next that is seen before long.
    const page = pages[at];
    return page && ms <= page.to ? page : (pages[at + 1] ?? page ?? null);
  }
  return null;
}
