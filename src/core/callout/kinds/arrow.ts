import type { Point } from '../../schema/parts';
import { twoPoints } from './two-points';

/** Length of an arrow's head in line widths, and half its opening in radians. */
const HEAD_LENGTH = 4.5;
const HEAD_ANGLE = 0.5;
/** An arrow is drawn from its tail to its tip in this many milliseconds. */
const ARROW_MS = 250;

const along = (a: Point, b: Point, u: number): Point => ({
  x: a.x + (b.x - a.x) * u,
  y: a.y + (b.y - a.y) * u,
});

/** An arrow from one spot to another. */
export const arrow = twoPoints('arrow', false, ({ from, to, width }, ms) => {
  const tip = along(from, to, Math.min(1, (ms + 1) / ARROW_MS));
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
});
