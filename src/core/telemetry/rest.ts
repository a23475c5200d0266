import { countFront } from '../bisect';
import type { PointerTrack } from './pointer-track';
import { pointerAt } from './sample';

/** The pointer counts as moved when it is so far away, in footage pixels. */
const MOVED = 3;

/** How long the pointer has stood still, and how long it will. */
export interface RestNow {
  /** Milliseconds since it moved or something was pressed; `most` where it is that or longer. */
  readonly since: number;
  /** Milliseconds until it moves or something is pressed; `most` where it is that or longer. */
  readonly until: number;
}

/**
 * How the pointer rests at an instant.
 *
 * @param most looks so many milliseconds back and ahead at most
 */
export function restAt(track: PointerTrack, ms: number, most: number): RestNow {
  const { samples, events } = track;
  const here = pointerAt(track, ms);
  const away = (i: number) => Math.hypot(samples[i]![1] - here.x, samples[i]![2] - here.y) > MOVED;
  const next = countFront(samples, ([t]) => t <= ms);
  let since = most;
  for (let i = next - 1; i >= 0 && ms - samples[i]![0] < most; i--)
    if (away(i)) {
      since = ms - (samples[i + 1]?.[0] ?? ms);
      break;
    }
  let until = most;
  for (let i = next; i < samples.length && samples[i]![0] - ms < most; i++)
    if (away(i)) {
      until = Math.max(0, (samples[i - 1]?.[0] ?? ms) - ms);
      break;
    }
  for (let i = countFront(events, ({ t }) => t < ms - most); i < events.length; i++) {
    const { t, type } = events[i]!;
    if (t > ms + most) break;
    if (type !== 'down' && type !== 'up' && type !== 'wheel') continue;
    if (t <= ms) since = Math.min(since, ms - t);
    else until = Math.min(until, t - ms);
  }
  return { since: Math.max(0, since), until };
}
