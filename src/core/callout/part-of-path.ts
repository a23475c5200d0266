import type { Point } from '../schema/parts';

const lengthOf = (a: Point, b: Point): number => Math.hypot(b.x - a.x, b.y - a.y);

/**
 * The beginning of lines that follow one another, a share of their length from 0 to 1: as much of
 * them as a pen has drawn that moves evenly. Each path that it has reached has one point at least.
 */
export function partOfPaths(paths: readonly (readonly Point[])[], share: number): Point[][] {
  if (share >= 1) return paths.map((path) => [...path]);
  const total = paths.reduce(
    (sum, path) => sum + path.slice(1).reduce((s, p, i) => s + lengthOf(path[i]!, p), 0),
    0,
  );
  let left = Math.max(0, share) * total;
  const drawn: Point[][] = [];
  for (const path of paths) {
    if (!path.length) continue;
    const part = [path[0]!];
    drawn.push(part);
    for (let i = 1; i < path.length; i++) {
      const [from, to] = [path[i - 1]!, path[i]!];
      const length = lengthOf(from, to);
      if (length > left) {
        const u = left / length;
        part.push({ x: from.x + (to.x - from.x) * u, y: from.y + (to.y - from.y) * u });
        return drawn;
      }
      part.push(to);
      left -= length;
    }
  }
  return drawn;
}
