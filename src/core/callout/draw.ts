import { cornersOf, rectAround } from '../scale/rect';
import type { Point } from '../schema/parts';
import type { CalloutKindName } from './kinds';
import type { Callout } from './model';

/** What is to be made: a callout of a kind, or a picture of a still of the footage. */
export type NewShape =
  | { readonly kind: Exclude<CalloutKindName, 'picture'> }
  | { readonly still: string };

/** No side of what is drawn is shorter than this, in pixels of what it stands on. */
const LEAST = 8;

/** A rectangle of the shape of another that reaches as far as two points lie apart. */
function inShape(from: Point, to: Point, shape: { width: number; height: number }) {
  const share = Math.max(
    Math.abs(to.x - from.x) / shape.width,
    Math.abs(to.y - from.y) / shape.height,
    LEAST / Math.min(shape.width, shape.height),
  );
  const [width, height] = [shape.width * share, shape.height * share];
  return {
    ...{ x: to.x < from.x ? from.x - width : from.x, y: to.y < from.y ? from.y - height : from.y },
    ...{ width, height },
  };
}

/**
 * What becomes of a new callout that is drawn from one point to another: its ends, its rectangle,
 * or its spot and where its words stand.
 *
 * @param from where it was begun, in pixels of what it stands on
 * @param to where it ends, in the same
 * @param frame the way from the one to the other in frame pixels
 */
export function drawnBetween(
  callout: Callout,
  from: Point,
  to: Point,
  frame: { readonly dx: number; readonly dy: number },
): Partial<Callout> {
  const [first, last] = [{ ...from }, { ...to }];
  if ('from' in callout) return { from: first, to: last };
  if (callout.kind === 'picture') return { rect: inShape(from, to, callout.rect) };
  if ('rect' in callout) {
    const { x, y, width, height } = rectAround([from, to]);
    return { rect: { x, y, width: Math.max(LEAST, width), height: Math.max(LEAST, height) } };
  }
  if ('tip' in callout) return { tip: first, offset: { dx: frame.dx, dy: frame.dy } };
  return 'at' in callout ? { at: last } : {};
}

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Room around a line of text that is marked, as a share of its height. */
const ABOUT = 0.18;

/**
 * The lines of text that a rectangle marks, each as far as it lies within: those of which the
 * middle lies in it, or, where it is drawn flat over one, that one.
 *
 * @param text boxes of the lines on the page
 */
export function linesWithin(text: readonly Box[], rect: Box): Box[] {
  const right = rect.x + rect.width;
  const middle = rect.y + rect.height / 2;
  const across = text.filter((line) => line.x < right && line.x + line.width > rect.x);
  const within = across.filter(
    ({ y, height }) => y + height / 2 >= rect.y && y + height / 2 <= rect.y + rect.height,
  );
  const met = within.length
    ? within
    : across.filter(({ y, height }) => middle >= y && middle <= y + height);
  return met
    .toSorted((a, b) => a.y - b.y || a.x - b.x)
    .map(({ x, y, width, height }) => {
      const [from, to] = [Math.max(x, rect.x), Math.min(x + width, right)];
      const room = height * ABOUT;
      return {
        ...{ x: from - room, y: y - room },
        ...{ width: Math.max(LEAST, to - from) + 2 * room, height: height + 2 * room },
      };
    });
}

/** A marker pen along lines of text: the lines, and the rectangle around them. */
export const alongLines = (lines: readonly Box[]): { lines: Box[]; rect: Box } => ({
  lines: lines.map((line) => ({ ...line })),
  rect: rectAround(lines.flatMap(cornersOf)),
});
