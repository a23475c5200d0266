import type { Clip } from '../project/model';
import type { Ticks } from '../time/ticks';

/**
 * Level in dB of an envelope at a footage time: on the straight line between two points, outside
 * them at the nearest; 0 without points.
 */
export function envelopeAt(points: Clip['envelope'], time: Ticks): number {
  if (!points.length) return 0;
  let low = 0;
  let high = points.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (points[middle]![0] <= time) low = middle + 1;
    else high = middle;
  }
  const before = points[low - 1];
  const after = points[low];
  if (!before) return after![1];
  if (!after) return before[1];
  return before[1] + ((after[1] - before[1]) * (time - before[0])) / (after[0] - before[0]);
}
