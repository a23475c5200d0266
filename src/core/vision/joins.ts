import { median } from '../median';
import type { PointerLook } from './look';
import type { Found } from './pointer-path';

/** The pointer has one look in one picture and another in the next. */
interface Change {
  readonly from: number;
  readonly to: number;
  /** Where the corner of the new look is, seen from that of the old one, had it not moved on. */
  readonly dx: number;
  readonly dy: number;
}

/** Whether a look was seen to move, by its number. */
export type Moves = (look: number) => boolean;

/** A pointer that changes its look stays within so much of the larger of both. */
const NEAR = 0.75;
/** A hotspot is taken over from another look with so many changes that tell the same, in pixels. */
const LEAST_CHANGES = 2;
const AGREE = 5;

function changesOf(path: readonly Found[]): Change[] {
  const changes: Change[] = [];
  for (let i = 1; i < path.length; i++) {
    const [was, is] = [path[i - 1]!.at, path[i]!.at];
    if (!was || !is || was.look === is.look) continue;
    // It goes on for the time between both as fast as it came.
    const before = path[i - 2]?.at;
    const steady = before && before.look === was.look;
    const [mx, my] = steady ? [was.x - before.x, was.y - before.y] : [0, 0];
    changes.push({ from: was.look, to: is.look, dx: is.x - was.x - mx, dy: is.y - was.y - my });
  }
  return changes;
}

/** The look that is seen most among those that move, by its number; -1 if there is none. */
function mainLook(path: readonly Found[], count: number, moves: Moves): number {
  const seen = Array.from({ length: count }, (_, number): number => (moves(number) ? 0 : -1));
  for (const { at } of path) if (at && moves(at.look)) seen[at.look]!++;
  const most = Math.max(...seen);
  return most < 0 ? -1 : seen.indexOf(most);
}

/**
 * The numbers of looks that are none of the pointer's: where they come up, the pointer would have to
 * leap there from where it was.
 *
 * @param moves which of them were seen to move, by their numbers
 */
export function strangersAmong(
  path: readonly Found[],
  looks: readonly PointerLook[],
  moves: Moves,
): readonly number[] {
  const changes = changesOf(path);
  return looks.flatMap((look, number) => {
    if (moves(number)) return [];
    const leaps = changes
      .filter(({ to }) => to === number)
      .map(({ from, dx, dy }) => {
        const other = looks[from]!;
        const x = dx + (look.width - other.width) / 2;
        const y = dy + (look.height - other.height) / 2;
        const size = Math.max(look.width, look.height, other.width, other.height);
        return Math.hypot(x, y) / size;
      });
    return leaps.length && median(leaps) > NEAR ? [number] : [];
  });
}

/**
 * Looks with the hotspots that follow from where the pointer was before and after it changed from or
 * to the look that is seen most; where too little tells so, as their outlines have them.
 *
 * @param moves which of them were seen to move, by their numbers
 */
export function joinHotspots(
  path: readonly Found[],
  looks: readonly PointerLook[],
  moves: Moves,
): readonly PointerLook[] {
  const main = mainLook(path, looks.length, moves);
  const anchor = looks[main];
  if (!anchor) return looks;
  const changes = changesOf(path);
  return looks.map((look, number) => {
    if (number === main) return look;
    const spots = changes.flatMap(({ from, to, dx, dy }) => {
      if (from === main && to === number)
        return [{ x: anchor.hotspot.x - dx, y: anchor.hotspot.y - dy }];
      if (from === number && to === main)
        return [{ x: anchor.hotspot.x + dx, y: anchor.hotspot.y + dy }];
      return [];
    });
    if (spots.length < LEAST_CHANGES) return look;
    const x = median(spots.map((spot) => spot.x));
    const y = median(spots.map((spot) => spot.y));
    const agreed = spots.filter((spot) => Math.hypot(spot.x - x, spot.y - y) <= AGREE);
    return agreed.length * 2 > spots.length ? { ...look, hotspot: { x, y } } : look;
  });
}
