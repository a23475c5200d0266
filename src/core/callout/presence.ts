import type { Range } from '../time/ranges';
import { secondsToTicks, type Ticks } from '../time/ticks';

const FADE = secondsToTicks(0.2);

/**
 * Opacity of a callout at an instant: it fades in and out over 0.2 s, or a third of its length if
 * that is shorter.
 */
export function presenceAt(range: Range, time: Ticks): number {
  if (time < range.start || time >= range.end) return 0;
  const fade = Math.min(FADE, (range.end - range.start) / 3);
  return Math.min(1, (time - range.start) / fade, (range.end - time) / fade);
}
