/**
 * A rectangle in pixels, y down. The space (footage, frame, output) is told by the type that wraps
 * it.
 */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

declare const space: unique symbol;
/** Pixels of one space; rectangles of two spaces can't be mixed up. */
type In<S extends string> = Rect & { readonly [space]?: S };
/** Pixels of a source. */
export type InFootage = In<'footage'>;
/** Pixels of what is being drawn: the project's size, or an export's. */
export type InOutput = In<'output'>;

/** A point in pixels of one space. */
type PointIn<S extends string> = {
  readonly x: number;
  readonly y: number;
  readonly [space]?: S;
};
export type PointInFootage = PointIn<'footage'>;
export type PointInOutput = PointIn<'output'>;

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** The part that two rectangles share; of zero size when there is none. */
export function intersect(a: Rect, b: Rect): Rect {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  return {
    x,
    y,
    width: Math.max(0, Math.min(a.x + a.width, b.x + b.width) - x),
    height: Math.max(0, Math.min(a.y + a.height, b.y + b.height) - y),
  };
}

/** Whether two rectangles share anything. */
export function meet(a: Rect, b: Rect): boolean {
  const { width, height } = intersect(a, b);
  return width > 0 && height > 0;
}

/** The smallest rectangle around points; of no use without any. */
export function rectAround(points: readonly { readonly x: number; readonly y: number }[]): Rect {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of points) {
    left = Math.min(left, x);
    top = Math.min(top, y);
    right = Math.max(right, x);
    bottom = Math.max(bottom, y);
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** The corners of a rectangle, round from its upper left. */
export const cornersOf = ({ x, y, width, height }: Rect): { x: number; y: number }[] => [
  { x, y },
  { x: x + width, y },
  { x: x + width, y: y + height },
  { x, y: y + height },
];

/** The middle of a rectangle, in the space that it is in. */
export const middleOf = ({ x, y, width, height }: Rect): { x: number; y: number } => ({
  ...{ x: x + width / 2, y: y + height / 2 },
});

/** How far a point lies beyond a rectangle of its space; 0 within it. */
export const distanceTo = (
  { x, y, width, height }: Rect,
  point: { readonly x: number; readonly y: number },
): number =>
  Math.hypot(
    Math.max(x - point.x, point.x - x - width, 0),
    Math.max(y - point.y, point.y - y - height, 0),
  );

/** A vector turned by so many degrees, clockwise as the picture is seen. */
export function turned(x: number, y: number, degrees: number): { x: number; y: number } {
  if (!degrees) return { x, y };
  const [sin, cos] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)];
  return { x: x * cos - y * sin, y: x * sin + y * cos };
}

/** A point turned about another by so many degrees, clockwise as the picture is seen. */
export function turnedAbout(
  point: { readonly x: number; readonly y: number },
  about: { readonly x: number; readonly y: number },
  degrees: number,
): { x: number; y: number } {
  const way = turned(point.x - about.x, point.y - about.y, degrees);
  return { x: about.x + way.x, y: about.y + way.y };
}

/** The size of the upright rectangle around one that is turned by so many degrees, either way. */
export function sizeTurned({ width, height }: Size, degrees: number): Size {
  const { x, y } = turned(1, 0, degrees);
  const [cos, sin] = [Math.abs(x), Math.abs(y)];
  return { width: width * cos + height * sin, height: width * sin + height * cos };
}

/** The smallest rectangle around two. */
export function unite(a: Rect, b: Rect): Rect {
  const x = Math.min(a.x, b.x);
  const y = Math.min(a.y, b.y);
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}

/** A rectangle with so much more on each side. */
export const padded = ({ x, y, width, height }: Rect, by: number): Rect => ({
  x: x - by,
  y: y - by,
  width: width + 2 * by,
  height: height + 2 * by,
});

/** The area of a rectangle. */
export const areaOf = ({ width, height }: Size): number => width * height;

/** Whether all of a rectangle lies within another; edges may touch. */
export const isWithin = (inner: Rect, outer: Rect): boolean =>
  inner.x >= outer.x &&
  inner.y >= outer.y &&
  inner.x + inner.width <= outer.x + outer.width &&
  inner.y + inner.height <= outer.y + outer.height;

/** Largest size of an aspect that fits in a box. */
export function fitSize(content: Size, box: Size): Size {
  const scale = Math.min(box.width / content.width, box.height / content.height);
  return { width: content.width * scale, height: content.height * scale };
}

/** Whole even number nearest to a coordinate: 4:2:0 chroma has one sample for two pixels. */
export const evenRound = (n: number): number => Math.round(n / 2) * 2;

/** The largest even number that is not above another. */
export const evenFloor = (n: number): number => Math.floor(n / 2) * 2;

/** The smallest even number that is not below another. */
export const evenCeil = (n: number): number => Math.ceil(n / 2) * 2;
