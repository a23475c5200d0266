import { twoPoints } from './two-points';

/** A straight line from one spot to another. */
export const line = twoPoints('line', false, ({ from, to }) => [[from, to]]);
