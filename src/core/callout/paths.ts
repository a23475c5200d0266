import type { ShapeCallout, StrokeCallout } from '../project/model';

interface Point {
  readonly x: number;
  readonly y: number;
}

/**
 * Corners of the polygon that stands for an ellipse: off by less than a thousandth of its radius.
 */
const ELLIPSE_CORNERS = 72;
/** Length of an arrow's head in line widths, and half its opening in radians. */
const HEAD_LENGTH = 4.5;
const HEAD_ANGLE = 0.5;
/** An arrow is drawn from its tail to its tip in this many milliseconds. */
const ARROW_MS = 250;

/**
 * The lines of a drawn callout as far as they are drawn, in footage pixels.
 *
 * @param ms milliseconds after the callout's start; a line drawn by hand appears as it was drawn
 */
export function strokePaths(callout: StrokeCallout | ShapeCallout, ms: number): Point[][] {
  if (callout.kind === 'stroke') {
    const points = callout.points.filter(([t]) => t <= ms).map(([, x, y]) => ({ x, y }));
    return points.length ? [points] : [];
  }
  const { from, to, shape, width } = callout;
  if (shape === 'arrow')
    return arrow(from, along(from, to, Math.min(1, (ms + 1) / ARROW_MS)), width);
  const left = Math.min(from.x, to.x);
  const right = Math.max(from.x, to.x);
  const top = Math.min(from.y, to.y);
  const bottom = Math.max(from.y, to.y);
  if (shape === 'box')
    return [
      [
        { x: left, y: top },
        { x: right, y: top },
        { x: right, y: bottom },
        { x: left, y: bottom },
      ],
    ];
  return [
    Array.from({ length: ELLIPSE_CORNERS }, (_, i) => {
      const a = (i / ELLIPSE_CORNERS) * Math.PI * 2;
      return {
        x: (left + right) / 2 + (Math.cos(a) * (right - left)) / 2,
        y: (top + bottom) / 2 + (Math.sin(a) * (bottom - top)) / 2,
      };
    }),
  ];
}

const along = (a: Point, b: Point, u: number): Point => ({
  x: a.x + (b.x - a.x) * u,
  y: a.y + (b.y - a.y) * u,
});

function arrow(from: Point, tip: Point, width: number): Point[][] {
  const angle = Math.atan2(tip.y - from.y, tip.x - from.x);
  const length = Math.min(HEAD_LENGTH * width, Math.hypot(tip.x - from.x, tip.y - from.y));
  const wing = (turn: number) => ({
    x: tip.x - length * Math.cos(angle + turn),
    y: tip.y - length * Math.sin(angle + turn),
  });
  return [
    [from, tip],
    [wing(HEAD_ANGLE), tip, wing(-HEAD_ANGLE)],
  ];
}
