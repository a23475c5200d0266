import { Type, type Static } from '@sinclair/typebox';
import type { Size } from '../scale/rect';
import { Share, strict, type Point } from '../schema/parts';

/** An outline of one's own has so many points. */
export const FEWEST_POINTS = 3;
export const MOST_POINTS = 48;

/** Points that a closed curve goes through, in order, in shares of the box that it lies in. */
export const OwnShape = Type.Array(strict({ x: Share, y: Share }), {
  ...{ minItems: FEWEST_POINTS, maxItems: MOST_POINTS },
  description:
    'Points that the outline of an own shape goes through, in shares of its box; a pebble where it ' +
    'is not there.',
});
export type OwnShape = Static<typeof OwnShape>;

/** The outline to begin with: a pebble. */
export const PEBBLE: OwnShape = [
  ...[
    { x: 0.5, y: 0.02 },
    { x: 0.84, y: 0.1 },
    { x: 0.98, y: 0.42 },
    { x: 0.92, y: 0.78 },
  ],
  ...[
    { x: 0.62, y: 0.98 },
    { x: 0.28, y: 0.94 },
    { x: 0.04, y: 0.66 },
    { x: 0.1, y: 0.26 },
  ],
];

/** So many lines stand for the curve from one point to the next. */
const LINES = 10;

/**
 * The corners of a polygon that stands for a closed curve through points: a uniform Catmull-Rom
 * spline (Catmull, Rom 1974, "A class of local interpolating splines"), kept within its box.
 *
 * @param box in whose pixels the corners are, from its upper left one
 */
export function curveThrough(points: OwnShape, { width, height }: Size): Point[] {
  const at = (index: number): Point => points[(index + points.length) % points.length]!;
  return points.flatMap((_, i) =>
    Array.from({ length: LINES }, (_, step): Point => {
      const t = step / LINES;
      const along = (side: 'x' | 'y') => {
        const [a, b, c, d] = [at(i - 1)[side], at(i)[side], at(i + 1)[side], at(i + 2)[side]];
        const curve =
          b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
        return Math.min(1, Math.max(0, curve));
      };
      return { x: along('x') * width, y: along('y') * height };
    }),
  );
}

/** The corners of a closed polygon, each moved outwards by so many pixels. */
export function outset(corners: readonly Point[], by: number): Point[] {
  const at = (index: number): Point => corners[(index + corners.length) % corners.length]!;
  const twiceArea = corners.reduce(
    (sum, { x, y }, i) => sum + x * at(i + 1).y - at(i + 1).x * y,
    0,
  );
  const outwards = twiceArea < 0 ? -by : by;
  return corners.map(({ x, y }, i) => {
    const [dx, dy] = [at(i + 1).x - at(i - 1).x, at(i + 1).y - at(i - 1).y];
    const length = Math.hypot(dx, dy) || 1;
    return { x: x + (dy / length) * outwards, y: y - (dx / length) * outwards };
  });
}

/** An outline on its way to another; between two of unlike points it changes half way. */
export function shapeBetween(from: OwnShape, to: OwnShape, u: number): OwnShape {
  if (from.length !== to.length) return u < 0.5 ? from : to;
  return from.map(({ x, y }, i) => ({
    ...{ x: x + (to[i]!.x - x) * u, y: y + (to[i]!.y - y) * u },
  }));
}

/** So many points stand for an outline on its way to one of another kind. */
const ON_THE_WAY = 40;

/** The same outline by as many points as one on its way to another kind has. */
export function onTheWay(points: OwnShape): OwnShape {
  const corners = curveThrough(points, { width: 1, height: 1 });
  return Array.from(
    { length: ON_THE_WAY },
    (_, i) => corners[Math.floor((i * corners.length) / ON_THE_WAY)]!,
  );
}

/** Which outline a usual shape has, as far as its box tells. */
export type UsualOutline =
  | { readonly power: number }
  | { /** Share of each side. */ readonly rounding: number };

/**
 * The points of a usual outline that lie in the same directions from the box's middle as those of
 * another: a superellipse of a power, or a box with round corners.
 */
export function inDirectionsOf(points: OwnShape, outline: UsualOutline): OwnShape {
  return points.map(({ x, y }) => {
    const [dx, dy] = [x - 0.5, y - 0.5];
    const [ax, ay] = [Math.abs(dx) || 1e-6, Math.abs(dy) || 1e-6];
    const reach =
      'power' in outline ? superellipse(ax, ay, outline.power) : roundBox(ax, ay, outline.rounding);
    return { x: 0.5 + dx * reach, y: 0.5 + dy * reach };
  });
}

/** How many times as far a superellipse of half a side as radius is in a direction. */
const superellipse = (ax: number, ay: number, power: number): number =>
  0.5 / (ax ** power + ay ** power) ** (1 / power);

/** How many times as far a box with round corners is in a direction. */
function roundBox(ax: number, ay: number, rounding: number): number {
  const straight = 0.5 / Math.max(ax, ay);
  const middle = 0.5 - rounding;
  if (Math.min(ax, ay) * straight <= middle) return straight;
  // Where the ray meets the circle of the corner.
  const [a, b] = [ax * ax + ay * ay, (ax + ay) * middle];
  const c = 2 * middle * middle - rounding * rounding;
  return (b + Math.sqrt(Math.max(0, b * b - a * c))) / a;
}

/** An outline with one more point, half way on the curve after one of its points. */
export function withPoint(points: OwnShape, after: number): OwnShape {
  if (points.length >= MOST_POINTS) return points;
  const middle = curveThrough(points, { width: 1, height: 1 })[after * LINES + LINES / 2]!;
  return points.toSpliced(after + 1, 0, middle);
}

/** An outline with one of its points less, as long as there are enough. */
export const withoutPoint = (points: OwnShape, index: number): OwnShape =>
  points.length > FEWEST_POINTS ? points.toSpliced(index, 1) : points;

/** An outline with one of its points elsewhere in its box. */
export const withPointAt = (points: OwnShape, index: number, { x, y }: Point): OwnShape =>
  points.with(index, { x: Math.min(1, Math.max(0, x)), y: Math.min(1, Math.max(0, y)) });
