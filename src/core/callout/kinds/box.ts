import { boundsOf } from '../kind';
import { twoPoints } from './two-points';

/** A rectangle that has its two points as opposite corners. */
export const box = twoPoints('box', true, ({ from, to }) => {
  const { at, size } = boundsOf([from, to]);
  const right = at.x + size.width;
  const bottom = at.y + size.height;
  return [[at, { x: right, y: at.y }, { x: right, y: bottom }, { x: at.x, y: bottom }]];
});
