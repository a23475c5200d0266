import type { Framing, Project } from '../project/model';
import { intersect, padded, type InFootage, type Rect, type Size } from '../scale/rect';
import type { Ticks } from '../time/ticks';
import { viewAround } from './candidates';
import { keepInside } from './path';

/** The closest view that a person can set by drawing or dragging. */
export const CLOSEST_BY_HAND = 8;

/** Views begin on even pixels, and must not cut off what was drawn for that. */
const ROUNDING = 3;

/**
 * The view for a rectangle that was drawn over the whole: of the frame's shape, holding all of it,
 * within the whole; the whole itself where the rectangle is nearly all of it.
 */
export const viewOfDrawn = (drawn: Rect, whole: InFootage, frame: Size): InFootage =>
  viewAround(intersect(padded(drawn, ROUNDING), whole), whole, frame, CLOSEST_BY_HAND, {
    margin: 0,
  }) ?? whole;

/**
 * A view with another magnification about the same middle, within the whole and no closer than can
 * be set by hand.
 */
export function magnified(view: InFootage, whole: InFootage, to: number): InFootage {
  const width = whole.width / Math.min(CLOSEST_BY_HAND, Math.max(1, to));
  const height = (width * whole.height) / whole.width;
  return keepInside(
    {
      ...{ width, height },
      x: view.x + (view.width - width) / 2,
      y: view.y + (view.height - height) / 2,
    },
    whole,
  );
}

/** A view of one recording in the pixels of another, as a share of its whole. */
export function viewInOther(view: Rect, from: Rect, to: Rect): InFootage {
  const scale = to.width / from.width;
  const height = view.height * scale;
  return keepInside(
    {
      ...{ width: view.width * scale, height },
      x: to.x + (view.x - from.x) * scale,
      y: to.y + (view.y - from.y) * scale,
    },
    to,
  );
}

/** The last framing that begins before an instant; null where there is none. */
export const framingBefore = (
  { framings }: Pick<Project, 'framings'>,
  time: Ticks,
): Framing | null => framings.findLast(({ start }) => start < time) ?? null;
