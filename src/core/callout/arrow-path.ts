import { assertNever } from '../assert-never';
import type { Point } from '../schema/parts';

/** The ways an arrow can take from its tail to its tip. */
export const COURSES = ['straight', 'curved', 'elbow'] as const;
export type Course = (typeof COURSES)[number];

/** Straight pieces that stand for a curve; none turns by more than a few degrees. */
const PIECES = 32;
/** Length of an arrow's head in line widths, and half its opening in radians. */
const HEAD_LENGTH = 4.5;
const HEAD_ANGLE = 0.5;

/**
 * The point of a curve that is furthest from the straight way: half way along, and `bend` times the
 * way's length to its left as one looks along it (to the right below 0).
 */
export const curveTop = (from: Point, to: Point, bend: number): Point => ({
  x: (from.x + to.x) / 2 + (to.y - from.y) * bend,
  y: (from.y + to.y) / 2 - (to.x - from.x) * bend,
});

/** The bend of the curve between two points whose top is nearest to a third; within -1 and 1. */
export function bendTowards(from: Point, to: Point, top: Point): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const square = dx * dx + dy * dy;
  if (square === 0) return 0;
  const [x, y] = [top.x - (from.x + to.x) / 2, top.y - (from.y + to.y) / 2];
  return Math.max(-1, Math.min(1, (x * dy - y * dx) / square));
}

/**
 * The way of an arrow from its tail to its tip as straight pieces: itself, a quadratic Bézier curve,
 * or two that meet at a right angle, the longer one first.
 */
export function arrowPath(from: Point, to: Point, course: Course, bend: number): Point[] {
  switch (course) {
    case 'straight':
      return [from, to];
    case 'elbow':
      return Math.abs(to.x - from.x) >= Math.abs(to.y - from.y)
        ? [from, { x: to.x, y: from.y }, to]
        : [from, { x: from.x, y: to.y }, to];
    case 'curved': {
      // A quadratic curve passes half way between its control point and the straight way.
      const control = curveTop(from, to, 2 * bend);
      return Array.from({ length: PIECES + 1 }, (_, i) => {
        const u = i / PIECES;
        const [a, b, c] = [(1 - u) * (1 - u), 2 * u * (1 - u), u * u];
        return {
          x: a * from.x + b * control.x + c * to.x,
          y: a * from.y + b * control.y + c * to.y,
        };
      });
    }
    default:
      return assertNever(course);
  }
}

/**
 * The two wings of the head at the end of a path, as one line through the tip. It looks where the
 * path comes from over the head's own length, so that on a curve it does not stand askew.
 *
 * @param width of the arrow's line
 * @returns null for a path that is too short to have a direction
 */
export function arrowHead(path: readonly Point[], width: number): Point[] | null {
  const tip = path.at(-1);
  if (!tip || path.length < 2) return null;
  const wanted = HEAD_LENGTH * width;
  const away = (p: Point) => Math.hypot(tip.x - p.x, tip.y - p.y);
  let back = path.length - 2;
  while (back > 0 && away(path[back]!) < wanted) back--;
  const length = Math.min(wanted, away(path[back]!));
  if (length === 0) return null;
  const angle = Math.atan2(tip.y - path[back]!.y, tip.x - path[back]!.x);
  const wing = (turn: number) => ({
    x: tip.x - length * Math.cos(angle + turn),
    y: tip.y - length * Math.sin(angle + turn),
  });
  return [wing(HEAD_ANGLE), tip, wing(-HEAD_ANGLE)];
}
