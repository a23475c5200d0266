import { shiftsAround, type FollowPath } from '../callout/follow-path';
import type { Rect } from '../scale/rect';
import type { PrivateStretch } from './log';

/** Reading finds edges anew each time: places this near are one, in pixels. */
const NEAR = 6;
/** Sizes that differ by less are one. */
const SAME_SIZE = 0.08;

type Run = FollowPath['runs'][number];

/** How far a place is from where it was marked; what was read has no sure height. */
function shiftTo(marked: Rect, rect: Rect): { dx: number; dy: number; scale: number } {
  const ratio = rect.width / Math.max(1, marked.width);
  const scale = Math.abs(ratio - 1) < SAME_SIZE ? 1 : Math.min(20, Math.max(0.05, ratio));
  return {
    dx: rect.x + rect.width / 2 - (marked.x + marked.width / 2) * scale,
    dy: rect.y + rect.height / 2 - (marked.y + marked.height / 2) * scale,
    scale,
  };
}

/**
 * The path of followed content with all places at which it was read: what is followed may have been
 * taken for another that looks much like it, and covers rather hide too much. The places that are
 * added are not sure, so that only covers heed them.
 *
 * @param marked where it was read when it was marked, in pixels of the recording
 * @param stretches all that was read of it, in the path's recording
 */
export function withStretches(
  path: FollowPath,
  marked: Rect,
  stretches: readonly PrivateStretch[],
): FollowPath {
  const added = stretches.flatMap(({ from, to, rect }): Run[] => {
    const { dx, dy, scale } = shiftTo(marked, rect);
    const isThere = [from + path.step, (from + to) / 2, to - path.step].every((ms) =>
      shiftsAround(path, ms).some(
        (shift) =>
          Math.abs(shift.dx - dx) <= NEAR * scale &&
          Math.abs(shift.dy - dy) <= NEAR * scale &&
          Math.abs(shift.scale - scale) <= SAME_SIZE,
      ),
    );
    const last = Math.min(to, path.to);
    return isThere || last <= from ? [] : [{ from, to: last, places: [[from, dx, dy, scale, 0]] }];
  });
  // Where both know a place, that of the path is the one that is shown.
  return added.length ? { ...path, runs: [...added, ...path.runs] } : path;
}
