/** A drawn line is kept with so many points at most. */
const MOST = 240;

interface Spot {
  readonly x: number;
  readonly y: number;
}

/**
 * A line that was drawn by hand as a path of the pointer: it is gone along evenly from one time to
 * another, in milliseconds. A single spot is stayed at.
 *
 * @returns `[ms, x, y]`, times ascending; two points at least
 */
export function drawnPath(
  spots: readonly Spot[],
  from: number,
  to: number,
): [ms: number, x: number, y: number][] {
  const [first, last] = [spots[0], spots.at(-1)];
  if (!first || !last || to <= from) return [];
  const along: number[] = [0];
  for (let i = 1; i < spots.length; i++)
    along.push(
      along[i - 1]! + Math.hypot(spots[i]!.x - spots[i - 1]!.x, spots[i]!.y - spots[i - 1]!.y),
    );
  const length = along.at(-1)!;
  if (!length)
    return [
      [from, first.x, first.y],
      [to, first.x, first.y],
    ];
  const points: [number, number, number][] = [];
  const least = (to - from) / MOST;
  for (const [i, { x, y }] of spots.entries()) {
    const t = from + (along[i]! / length) * (to - from);
    const before = points.at(-1);
    if (!before || t - before[0] >= least) points.push([t, x, y]);
  }
  const end = points.at(-1)!;
  if (end[0] < to && points.length > 1 && to - end[0] < least) points.pop();
  if (points.at(-1)![0] < to) points.push([to, last.x, last.y]);
  return points;
}
