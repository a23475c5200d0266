import { boundsOf } from '../kind';
import { twoPoints } from './two-points';

/**
 * Corners of the polygon that stands for an ellipse: off by less than a thousandth of its radius.
 */
const ELLIPSE_CORNERS = 72;

/** An ellipse in the rectangle that has its two points as opposite corners. */
export const ellipse = twoPoints('ellipse', true, ({ from, to }) => {
  const { at, size } = boundsOf([from, to]);
  const right = at.x + size.width;
  const bottom = at.y + size.height;
  return [
    Array.from({ length: ELLIPSE_CORNERS }, (_, i) => {
      const a = (i / ELLIPSE_CORNERS) * Math.PI * 2;
      return {
        x: (at.x + right) / 2 + (Math.cos(a) * (right - at.x)) / 2,
        y: (at.y + bottom) / 2 + (Math.sin(a) * (bottom - at.y)) / 2,
      };
    }),
  ];
});
