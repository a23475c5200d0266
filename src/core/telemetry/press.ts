import { countFront } from '../bisect';
import type { PointerTrack } from './pointer-track';

/** A press that is on, or was a moment ago. */
export interface PressNow {
  readonly kind: 'main' | 'second' | 'double' | 'drag';
  /** Milliseconds since it went down. */
  readonly since: number;
  /** Milliseconds since it was let go; 0 while it is held. */
  readonly released: number;
}

/** Two presses that follow each other within so many ms at one place are a double one. */
const DOUBLE = 450;
/** What is held for longer, in ms, is a drag. */
const DRAG = 350;

/** The last of the first so many events that is a press; -1 if none is. */
function downBefore(events: PointerTrack['events'], count: number): number {
  let at = count - 1;
  while (at >= 0 && events[at]!.type !== 'down') at--;
  return at;
}

/** The newest press of a track at an instant; null before the first. */
export function pressAt({ events }: PointerTrack, ms: number): PressNow | null {
  const at = downBefore(
    events,
    countFront(events, ({ t }) => t <= ms),
  );
  const down = events[at];
  if (!down) return null;
  let next = at + 1;
  while (next < events.length && events[next]!.type !== 'up') next++;
  const end = events[next]?.t ?? down.t;
  const before = events[downBefore(events, at)];
  const since = ms - down.t;
  const released = Math.max(0, ms - end);
  if (down.button) return { kind: 'second', since, released };
  if (before && !before.button && down.t - before.t <= DOUBLE)
    return { kind: 'double', since, released };
  return { kind: end - down.t > DRAG ? 'drag' : 'main', since, released };
}
