/**
 * When a piece of a recording says it was taken, and when it arrived on the take's clock;
 * milliseconds.
 */
export interface ClockPair {
  readonly device: number;
  readonly arrival: number;
}

export interface ClockFit {
  /** Take time of device time 0, in ms: `take = device * rate + offset`. */
  readonly offset: number;
  /** Take milliseconds for one device millisecond; 1 + drift. */
  readonly rate: number;
}

const LEAST_SPAN_MS = 10_000;

/**
 * How a device's clock runs against the take's. Pieces arrive late by a varying while, never early,
 * so the true relation is the line that lies below all arrivals and touches them: the edge of their
 * lower convex hull over the middle of the time (Moon, Skelly and Towsley, "Estimation and removal
 * of clock skew from network delay measurements", INFOCOM 1999). Over less than ten seconds drift
 * can't be told from jitter and the rate is 1.
 *
 * @param pairs in order of device time; at least one
 * @throws RangeError when there is none
 */
export function fitClock(pairs: readonly ClockPair[]): ClockFit {
  const first = pairs[0];
  const last = pairs[pairs.length - 1];
  if (!first || !last) throw new RangeError('A clock can’t be fitted to nothing.');
  const span = last.device - first.device;
  if (span < LEAST_SPAN_MS)
    return { offset: Math.min(...pairs.map((p) => p.arrival - p.device)), rate: 1 };
  const hull: ClockPair[] = [];
  for (const pair of pairs) {
    while (hull.length > 1) {
      const a = hull[hull.length - 2]!;
      const b = hull[hull.length - 1]!;
      // A point that does not lie below the line past it is not on the lower hull.
      if (
        (b.arrival - a.arrival) * (pair.device - a.device) <
        (pair.arrival - a.arrival) * (b.device - a.device)
      )
        break;
      hull.pop();
    }
    hull.push(pair);
  }
  const middle = pairs.reduce((sum, p) => sum + p.device, 0) / pairs.length;
  const index = Math.max(
    0,
    Math.min(hull.length - 2, hull.findIndex((p) => p.device > middle) - 1),
  );
  const [a, b] = [hull[index]!, hull[index + 1]!];
  const rate = (b.arrival - a.arrival) / (b.device - a.device);
  return { offset: a.arrival - a.device * rate, rate };
}
