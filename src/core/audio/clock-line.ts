import { median } from '../median';

/** A distance between two clocks that was measured at one time. */
export interface ClockPoint {
  /** Time of the second clock, in seconds. */
  readonly at: number;
  /** Time of the first less time of the second, in seconds. */
  readonly offset: number;
}

/** How one clock runs against another: `offset + at * slope` is the distance between them. */
export interface ClockLine<P extends ClockPoint = ClockPoint> {
  readonly offset: number;
  /** Seconds a second. */
  readonly slope: number;
  /** Standard error of the slope; infinite where two points at most lie on the line. */
  readonly error: number;
  /** The points that lie on it. */
  readonly within: readonly P[];
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * The line on which most of the points lie: the median of the slopes of all pairs (Sen, Estimates
 * of the Regression Coefficient Based on Kendall's Tau, 1968), which up to a quarter of wrong
 * points can't turn, then least squares through those near it.
 *
 * @param near how far from the line a point lies on it, in seconds
 * @param steepest slopes beyond this, either way, are no clock's
 * @returns null without points
 */
export function clockLine<P extends ClockPoint>(
  points: readonly P[],
  near: number,
  steepest: number,
): ClockLine<P> | null {
  if (!points.length) return null;
  const limited = (slope: number) => Math.max(-steepest, Math.min(steepest, slope));
  const slopes: number[] = [];
  for (let i = 0; i < points.length; i++)
    for (let k = i + 1; k < points.length; k++) {
      const [a, b] = [points[i]!, points[k]!];
      if (a.at !== b.at) slopes.push((b.offset - a.offset) / (b.at - a.at));
    }
  const slope = slopes.length ? limited(median(slopes)) : 0;
  const offset = median(points.map((p) => p.offset - p.at * slope));
  const within = points.filter((p) => Math.abs(p.offset - p.at * slope - offset) <= near);
  if (within.length < 3) return { offset, slope, error: Infinity, within };
  const [midAt, midOffset] = [mean(within.map((p) => p.at)), mean(within.map((p) => p.offset))];
  const wide = within.reduce((sum, p) => sum + (p.at - midAt) ** 2, 0);
  const shared = within.reduce((sum, p) => sum + (p.at - midAt) * (p.offset - midOffset), 0);
  const fitted = wide > 0 ? limited(shared / wide) : 0;
  const level = midOffset - midAt * fitted;
  const rest = within.reduce((sum, p) => sum + (p.offset - level - p.at * fitted) ** 2, 0);
  const error = wide > 0 ? Math.sqrt(rest / (within.length - 2) / wide) : Infinity;
  return { offset: level, slope: fitted, error, within };
}
