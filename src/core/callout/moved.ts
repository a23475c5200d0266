import { turned } from '../scale/rect';
import type { Ticks } from '../time/ticks';
import { poseAt, withPose } from './keyframes';
import { WHOLE, type CalloutScene, type Handle, type Move } from './kind';
import { kindOf } from './kinds';
import type { Callout } from './model';

/** How far something is moved in the picture, in output pixels. */
export interface Way {
  readonly dx: number;
  readonly dy: number;
}

/** Whether a handle moves all of its callout, or all of what is seen of it but its spot. */
export const movesAll = ({ look }: Handle): boolean => look === 'area' || look === 'words';

/**
 * A way in pixels of what a callout stands on, for a handle that moves the middle of the callout by
 * half as far as it is moved itself: the half of the way is as in the picture, the other one turned
 * and sized as the callout is.
 */
function halfTurned({ dx, dy }: Way, scale: number, size: number, turn: number): Way {
  const { x: cos, y: sin } = turned(size, 0, turn);
  // The matrix (1 + size × rotation) / 2, which is to be undone.
  const [a, b] = [(1 + cos) / 2, sin / 2];
  const length = a * a + b * b || 1;
  return { dx: (a * dx + b * dy) / length / scale, dy: (a * dy - b * dx) / length / scale };
}

/** A way in the picture as it is on what a callout stands on, before that is turned. */
export function untilted({ dx, dy }: Way, { tilt }: Pick<CalloutScene, 'tilt'>): Way {
  const { x, y } = turned(dx, dy, -tilt);
  return { dx: x, dy: y };
}

/**
 * How far a handle of a callout is moved by a way in the picture, so that it stays under the hand
 * however the callout is turned and sized.
 *
 * @param on what the callout is told there, in its pose
 */
export function moveOf(callout: Callout, handle: string, on: CalloutScene, way: Way): Move {
  const [first] = kindOf(callout).handles(callout);
  const scale = on.scale / on.size;
  const back = turned(way.dx, way.dy, -on.turn);
  const frame = { dx: back.x / on.ratio, dy: back.y / on.ratio };
  const upright = untilted(way, on);
  const spot = handle === WHOLE || handle === first!.id;
  if (spot || !first!.size)
    return { by: { dx: upright.dx / scale, dy: upright.dy / scale }, frame };
  return { by: halfTurned(upright, scale, on.size, on.turn - on.tilt), frame };
}

/**
 * What becomes of a callout when one of its handles is moved by a way in the picture. Where poses
 * are kept, moving all of it changes the one that is kept at the instant.
 *
 * @param handle null for all of it, whatever its kind
 * @param at ticks after its start
 * @param near poses so many ticks away count as there: half a frame
 */
export function movedCallout(
  callout: Callout,
  handle: Handle | null,
  on: CalloutScene,
  way: Way,
  at: Ticks,
  near: Ticks,
): Partial<Callout> {
  const kind = kindOf(callout);
  const alone = kind.handles(callout).length === 1;
  if (callout.keyframes.length && (!handle || movesAll(handle) || alone)) {
    const { dx, dy } = poseAt(callout, at);
    const scale = on.scale / on.size;
    const by = untilted(way, on);
    const change = { dx: dx + by.dx / scale, dy: dy + by.dy / scale };
    return structuredClone(withPose(callout, at, change, near)) as Partial<Callout>;
  }
  const id = handle?.id ?? WHOLE;
  return kind.withHandle(callout, id, moveOf(callout, id, on, way)) as Partial<Callout>;
}

/** What of its pose a callout has by number; where it is is set on the picture. */
export const poseSettings = (callout: Callout): ('size' | 'turn' | 'opacity')[] =>
  (['size', 'turn', 'opacity'] as const).filter(
    (name) =>
      (name !== 'turn' || !kindOf(callout).upright) &&
      // What is hidden stays hidden.
      (name !== 'opacity' || callout.kind !== 'cover'),
  );
