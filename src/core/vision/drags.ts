import { distanceTo } from '../scale/rect';
import type { Change } from './changes';
import type { InferredPress, Spot } from './presses';

/** A pointer that goes further than this from picture to picture moves. */
const MOVES = 1;
/** Who drags may hold still for so many ms. */
const HELD = 170;
/** A drag lasts for so many ms, goes so many pixels, and is seen in so many pictures, at least. */
const LEAST_MS = 250;
const LEAST_WAY = 20;
const LEAST_PICTURES = 6;
/** What is dragged changes this near to the pointer, in pixels, */
const NEAR = 60;
/** in this share of the pictures in which it moves: what is only passed changes now and then. */
const FOLLOWS = 0.6;
/** None was told wrongly in recordings of desktops in which nothing is dragged. */
const CONFIDENCE = 0.9;

/** A pointer on its way, from one picture to another. */
interface Way {
  readonly from: number;
  to: number;
}

/** The ways between the rests of a pointer, and between the times when it is hidden. */
function waysOf(spots: readonly (Spot | null)[]): Way[] {
  const ways: Way[] = [];
  let open = false;
  for (let i = 1; i < spots.length; i++) {
    const [before, spot] = [spots[i - 1], spots[i]];
    const last = ways[ways.length - 1];
    if (!before || !spot) open = false;
    else if (Math.hypot(spot.x - before.x, spot.y - before.y) > MOVES) {
      if (open && last) last.to = i;
      else ways.push({ from: i - 1, to: i });
      open = true;
    } else if (last && spot.ms - spots[last.to]!.ms > HELD) open = false;
  }
  return ways;
}

/**
 * What was dragged: all along a way of the pointer something near to it changes, as a handle, a
 * window or a selection does that follows it. What lights up as the pointer passes changes in few
 * of the pictures.
 *
 * @param spots where the pointer was, picture by picture; null where it was hidden
 * @param changes what changed in the same pictures, the pointer's own motion taken out
 */
export function inferDrags(
  spots: readonly (Spot | null)[],
  changes: readonly Change[],
): InferredPress[] {
  return waysOf(spots).flatMap(({ from, to }): InferredPress[] => {
    const [first, last] = [spots[from]!, spots[to]!];
    if (last.ms - first.ms < LEAST_MS) return [];
    let [moved, followed, way] = [0, 0, 0];
    for (let i = from + 1; i <= to; i++) {
      const [before, spot] = [spots[i - 1]!, spots[i]!];
      const step = Math.hypot(spot.x - before.x, spot.y - before.y);
      const { calm, scrolled } = changes[i]!;
      if (scrolled) return [];
      if (step <= MOVES) continue;
      moved++;
      way += step;
      const isNear = calm.some((box) =>
        [before, spot].some((place) => distanceTo(box, place) <= NEAR),
      );
      if (isNear) followed++;
    }
    if (moved < LEAST_PICTURES || way < LEAST_WAY || followed < FOLLOWS * moved) return [];
    return [{ ms: first.ms, x: first.x, y: first.y, until: last.ms, confidence: CONFIDENCE }];
  });
}

/** Presses and drags in order; a press during a drag, or right before it, is the drag's own. */
export function pressesWithDrags(
  presses: readonly InferredPress[],
  drags: readonly InferredPress[],
): InferredPress[] {
  const kept = presses.filter(
    ({ ms }) => !drags.some((drag) => ms >= drag.ms - HELD && ms <= drag.until! + HELD),
  );
  return [...kept, ...drags].sort((a, b) => a.ms - b.ms);
}
