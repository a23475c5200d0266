import {
  areaOf,
  intersect,
  padded,
  unite,
  type InFootage,
  type PointInFootage,
  type Rect,
  type Size,
} from '../scale/rect';
import type { Page } from '../vision/page';
import { viewAround } from './candidates';

/** Beside a panel or a line a view keeps so much room, as a share of the recording's width. */
const ROOM = 0.006;
/** Lines whose gap is less than this share of their height stand in one block. */
const LEADING = 1.6;
const LEAST_CLOSER = 1.05;

type Read = Pick<Page, 'lines' | 'panels'>;

/** Lines that stand under one another and begin or reach over the same places, as one box each. */
export function textBlocks({ lines }: Pick<Page, 'lines'>): Rect[] {
  const blocks: { box: Rect; height: number }[] = [];
  for (const line of [...lines].sort((a, b) => a.y - b.y)) {
    const { x, y, width, height } = line;
    const over = blocks.find(({ box, height: last }) => {
      const gap = y - (box.y + box.height);
      const beside = x >= box.x + box.width || x + width <= box.x;
      return !beside && gap < LEADING * Math.min(height, last);
    });
    if (!over) blocks.push({ box: { x, y, width, height }, height });
    else {
      over.box = unite(over.box, line);
      over.height = height;
    }
  }
  return blocks.map(({ box }) => box);
}

const holds = ({ x, y, width, height }: Rect, at: PointInFootage): boolean =>
  at.x >= x && at.x <= x + width && at.y >= y && at.y <= y + height;

/**
 * Views that hold a panel or a block of text in which a spot lies, the closest first, each with a
 * little room around it; of the frame's shape, on even pixels, within the whole.
 *
 * @param closest the largest magnification that is allowed
 */
export function viewsOnPage(
  page: Read,
  at: PointInFootage,
  whole: InFootage,
  frame: Size,
  closest: number,
): InFootage[] {
  const room = whole.width * ROOM;
  const views = [...page.panels, ...textBlocks(page)]
    .filter((box) => holds(box, at))
    .sort((a, b) => areaOf(a) - areaOf(b))
    .flatMap((box) => viewAround(padded(box, room), whole, frame, closest, { margin: 0 }) ?? []);
  // What is hardly larger than the one before shows the same.
  return views.reduce<InFootage[]>((kept, view) => {
    const last = kept.at(-1);
    return last && view.width < last.width * LEAST_CLOSER ? kept : [...kept, view];
  }, []);
}

/** Where edges of views go well: beside panels and lines, with a little room. */
function placesBeside(page: Read, view: Rect, room: number) {
  const [left, right, top, bottom]: number[][] = [[], [], [], []];
  for (const { x, y, width, height } of [...page.panels, ...page.lines]) {
    if (!isNear({ x, y, width, height }, view)) continue;
    left!.push(x - room);
    right!.push(x + width + room);
    top!.push(y - room);
    bottom!.push(y + height + room);
  }
  return { left: left!, right: right!, top: top!, bottom: bottom! };
}

/** Whether a box reaches into a view or its surroundings. */
function isNear(box: Rect, view: Rect): boolean {
  const around = padded(view, Math.max(view.width, view.height) * 0.1);
  return areaOf(intersect(box, around)) > 0;
}

/** The least step that brings an edge to one of some places; zero where none is within reach. */
function stepTo(at: number, places: readonly number[], reach: number): number {
  let best = Infinity;
  for (const place of places) if (Math.abs(place - at) < Math.abs(best)) best = place - at;
  return Math.abs(best) <= reach ? best : 0;
}

const lesser = (a: number, b: number) => (a && (!b || Math.abs(a) <= Math.abs(b)) ? a : b);

/**
 * A view that is being moved, with its edges brought beside panels and text lines that are within
 * reach.
 *
 * @param whole the view of the whole recording
 * @param reach in footage pixels
 */
export function snapMoved(view: InFootage, page: Read, whole: Rect, reach: number): InFootage {
  const { left, right, top, bottom } = placesBeside(page, view, whole.width * ROOM);
  return {
    ...view,
    x: view.x + lesser(stepTo(view.x, left, reach), stepTo(view.x + view.width, right, reach)),
    y: view.y + lesser(stepTo(view.y, top, reach), stepTo(view.y + view.height, bottom, reach)),
  };
}

/**
 * A view that is being sized by a corner, with one of the corner's edges brought beside a panel or
 * a text line that is within reach; the opposite corner and the shape stay.
 *
 * @param sx -1 where the left edge is drawn, 1 for the right one
 * @param sy -1 where the upper edge is drawn, 1 for the lower one
 */
export function snapSized(
  view: InFootage,
  sx: 1 | -1,
  sy: 1 | -1,
  page: Read,
  whole: Rect,
  reach: number,
): InFootage {
  const { left, right, top, bottom } = placesBeside(page, view, whole.width * ROOM);
  const across = sx > 0 ? stepTo(view.x + view.width, right, reach) : -stepTo(view.x, left, reach);
  const down = sy > 0 ? stepTo(view.y + view.height, bottom, reach) : -stepTo(view.y, top, reach);
  const aspect = view.width / view.height;
  const more = lesser(across, down * aspect);
  if (!more) return view;
  const width = view.width + more;
  const height = width / aspect;
  return {
    width,
    height,
    x: sx > 0 ? view.x : view.x + view.width - width,
    y: sy > 0 ? view.y : view.y + view.height - height,
  };
}
