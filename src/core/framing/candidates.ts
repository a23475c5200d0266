import type { Page } from '../vision/page';
import {
  evenRound,
  intersect,
  isWithin,
  unite,
  type InFootage,
  type Rect,
  type Size,
} from '../scale/rect';
import type { Attention } from './attention';
import { shiftedView, widerView } from './cuts';
import { shareCovered, viewsBeside } from './inset';
import { keepInside } from './path';
import { LEAST_MAGNIFICATION, type Taste } from './taste';

/** A view that a plan can rest in, for some of what is to be seen. */
export interface CandidateView {
  readonly rect: InFootage;
  /** It is of use from this one of the things to see on, and up to that one. */
  first: number;
  last: number;
}

/** Views are found for at most so many things in a row. */
const MOST_TOGETHER = 48;
/** Views that differ by less than this share of their width are one. */
const ALIKE = 1 / 8;
/** A share of a view: less than this beside it is not worth leaving out. */
const SLIVER = 0.06;
/** A share of a view: it is not shifted nearer than this to what it is for. */
const LEAST_ROOM = 0.1;
/** So many things before and after those that a view is for may be seen in it too. */
const AROUND = 4;

/**
 * The closest view, of the frame's shape, that holds a rectangle with room around it, no closer
 * than allowed, within the whole view; its corner on even pixels of the recording, so that a view
 * at the sharp limit is copied pixel for pixel. Null where it would hardly magnify.
 *
 * @param closest the largest magnification that is allowed
 */
export function viewAround(
  rect: InFootage,
  whole: InFootage,
  frame: Size,
  closest: number,
  { margin }: Pick<Taste, 'margin'>,
): InFootage | null {
  const room = 1 - 2 * margin;
  const wide = Math.max(rect.width, (rect.height * frame.width) / frame.height) / room;
  const width = Math.max(whole.width / Math.max(closest, 1), wide);
  if (whole.width / width < LEAST_MAGNIFICATION) return null;
  const height = (width * frame.height) / frame.width;
  const view = keepInside(
    {
      x: rect.x + rect.width / 2 - width / 2,
      y: rect.y + rect.height / 2 - height / 2,
      width,
      height,
    },
    whole,
  );
  return {
    ...view,
    x: placed(view.x, width, whole.x, whole.width, rect.x, rect.width),
    y: placed(view.y, height, whole.y, whole.height, rect.y, rect.height),
  };
}

/**
 * Where a view of some size begins: on an even pixel, not beyond the whole, and at the whole's edge
 * where it would leave out a sliver only and can do without what lies at its other side.
 */
function placed(
  at: number,
  size: number,
  low: number,
  span: number,
  from: number,
  length: number,
): number {
  const high = low + span - size;
  const sliver = SLIVER * size;
  const holds = (start: number) => start <= from && start + size >= from + length;
  const edge = at - low < sliver ? low : high - at < sliver ? high : at;
  const near = evenRound(holds(edge) ? edge : at);
  return near > high && near - 2 >= low ? near - 2 : near;
}

const exactKey = ({ x, y, width }: InFootage): string => `= ${x} ${y} ${Math.round(width)}`;

/** What a view is for, with the least room around it that it keeps however it is shifted. */
function roomed(rect: Rect, view: Rect): Rect {
  const [across, down] = [view.width * LEAST_ROOM, view.height * LEAST_ROOM];
  return intersect(
    {
      ...{ x: rect.x - across, y: rect.y - down },
      ...{ width: rect.width + 2 * across, height: rect.height + 2 * down },
    },
    view,
  );
}

const keyOf = ({ x, y, width, height }: InFootage): string => {
  const step = width * ALIKE;
  const size = Math.round(Math.log2(width) / Math.log2(1 + ALIKE * 2));
  return `${size} ${Math.round((x + width / 2) / step)} ${Math.round((y + height / 2) / step)}`;
};

/**
 * Views that a plan can choose from: the whole first, then for each run of things that a view could
 * show together the closest that does.
 *
 * @param closest for each of the things, the largest magnification that is allowed while it is seen
 * @param insets for each of the things, what the presenter covers of a view then, as shares of it
 * @param pages for each of the things, what there is to read then
 */
export function candidateViews(
  attention: readonly Attention[],
  whole: InFootage,
  frame: Size,
  closest: readonly number[],
  insets: readonly (Rect | null)[],
  pages: readonly (Page | null)[],
  taste: Taste,
): CandidateView[] {
  const found = new Map<string, CandidateView>();
  const laid = new Map<string, readonly InFootage[]>();
  const numbers = new Map<Page, number>();
  const pageNumber = (page: Page): number => {
    const number = numbers.get(page) ?? numbers.size;
    numbers.set(page, number);
    return number;
  };
  const add = (view: InFootage, first: number, last: number, key = keyOf(view)) => {
    const known = found.get(key);
    if (known && first <= known.last + AROUND) known.last = Math.max(known.last, last);
    else found.set(known ? `${key} ${first}` : key, { rect: view, first, last });
  };
  for (const [first, one] of attention.entries()) {
    if (!one.gain) continue;
    let rect = one.rect;
    let most = closest[first]!;
    for (let last = first; last < attention.length && last - first < MOST_TOGETHER; last++) {
      const next = attention[last]!;
      // What only rests is seen in passing; no view is made for it.
      if (!next.gain) continue;
      rect = unite(rect, next.rect);
      most = Math.min(most, closest[last]!);
      const view = viewAround(rect, whole, frame, most, taste);
      if (!view) break;
      const page = pages[last];
      if (!page) add(view, first, last);
      else {
        // It is laid between the lines, or is somewhat wider. What was laid for a view like it
        // serves again where it holds all.
        const keep = roomed(rect, view);
        const near = `${keyOf(view)} ${pageNumber(page)}`;
        let clear = laid.get(near);
        if (!clear || !isWithin(keep, clear[0]!)) {
          const shifted = shiftedView(view, keep, whole, page);
          const wider = widerView(shifted, keep, whole, page);
          clear = wider ? [shifted, wider] : [shifted];
          laid.set(near, clear);
        }
        for (const one of clear) add(one, first, last, exactKey(one));
      }
      const inset = insets[last];
      if (inset && shareCovered(rect, view, inset) > 0)
        for (const beside of viewsBeside(view, rect, inset, whole))
          add({ ...beside, x: evenRound(beside.x), y: evenRound(beside.y) }, first, last);
    }
  }
  const end = attention.length - 1;
  return [
    { rect: whole, first: 0, last: end },
    ...[...found.values()].map(({ rect, first, last }) => ({
      rect,
      first: Math.max(0, first - AROUND),
      last: Math.min(end, last + AROUND),
    })),
  ];
}
