import { interpolateZoom } from 'd3-interpolate';
import type { InFootage } from '../scale/rect';

/** Seconds of a move of no length at all, and of each unit of its length. */
const BEGIN = 0.75;
const EACH = 0.6;
/** No move is longer. */
export const LONGEST_RAMP = 2;
/** No move is shorter: what is quicker reads as a jump. */
export const SHORTEST_RAMP = 0.7;

/**
 * The length of the way from one view to another as the eye perceives it: the arc length of the
 * smooth and efficient zoom-and-pan path of J. J. van Wijk and W. A. A. Nuij (2003), without unit.
 * Going twice as close is 0.49, a pan by the width of the view 1.25.
 */
export function perceivedDistance(from: InFootage, to: InFootage): number {
  const key = (v: InFootage): [number, number, number] => [
    v.x + v.width / 2,
    v.y + v.height / 2,
    v.width,
  ];
  // Its duration is that length times a thousand.
  return Math.abs(interpolateZoom(key(from), key(to)).duration) / 1000;
}

/** How long a move of some perceived length takes, in seconds. */
export const rampSeconds = (distance: number): number =>
  Math.min(LONGEST_RAMP, BEGIN + EACH * distance);
