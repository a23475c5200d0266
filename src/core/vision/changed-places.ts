import type { Change } from './changes';
import type { ScreenActivity } from './screen-activity';

/** A place of a recording that changed, from and until when (ms), in pixels. */
export type ChangedPlace = readonly [
  from: number,
  to: number,
  x: number,
  y: number,
  width: number,
  height: number,
];

/** A place that changes again within so many ms changes all the while, up to so long in one. */
const GAP = 400;
const LONGEST = 2000;
/** A recording with more places than this in motion is told by its activities alone. */
const MOST = 20_000;

/**
 * Which places of a recording changed when, the pointer's own motion taken out: finer than its
 * activities, which are told in one. Null where that would be too many.
 *
 * @param changes what changed from picture to picture
 * @param activities of which films count, whose changes are told by them alone
 */
export function changedPlaces(
  changes: readonly Change[],
  activities: readonly ScreenActivity[],
): ChangedPlace[] | null {
  const found: [number, number, number, number, number, number][] = [];
  const open = new Map<string, (typeof found)[number]>();
  for (const { ms, calm } of changes)
    for (const { x, y, width, height } of calm) {
      const key = `${x} ${y} ${width} ${height}`;
      const before = open.get(key);
      if (before && ms - before[1] <= GAP && ms - before[0] <= LONGEST) before[1] = ms;
      else {
        if (found.length >= MOST) return null;
        const place: (typeof found)[number] = [ms, ms, x, y, width, height];
        open.set(key, place);
        found.push(place);
      }
    }
  for (const { kind, start, end, box } of activities) {
    if (kind !== 'video') continue;
    for (let from = start; from <= end; from += LONGEST)
      found.push([from, Math.min(end, from + LONGEST), box.x, box.y, box.width, box.height]);
  }
  return found
    .map(([from, to, ...box]) => [Math.round(from), Math.round(to), ...box] as const)
    .sort((a, b) => a[0] - b[0] || a[1] - b[1]);
}
