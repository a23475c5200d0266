import { countFront } from '../bisect';
import type { Clip } from '../project/model';
import type { Ticks } from '../time/ticks';

/**
 * Level in dB of an envelope at a footage time: on the straight line between two points, outside
 * them at the nearest; 0 without points.
 */
export function envelopeAt(points: Clip['envelope'], time: Ticks): number {
  if (!points.length) return 0;
  const count = countFront(points, ([at]) => at <= time);
  const before = points[count - 1];
  const after = points[count];
  if (!before) return after![1];
  if (!after) return before[1];
  return before[1] + ((after[1] - before[1]) * (time - before[0])) / (after[0] - before[0]);
}
