import type { Range } from '../time/ranges';
import { frameDuration, secondsToTicks, type FrameRate, type Ticks } from '../time/ticks';

const FADE = secondsToTicks(0.2);

const fadeOf = ({ start, end }: Range): Ticks => Math.min(FADE, (end - start) / 3);

/** The first frame at which a callout is fully seen, in ticks. */
export function fullySeenFrom(range: Range, rate: FrameRate): Ticks {
  const frame = frameDuration(rate);
  return Math.ceil((range.start + fadeOf(range)) / frame) * frame;
}

/**
 * Opacity of a callout at an instant: it fades in and out over 0.2 s, or a third of its length if
 * that is shorter.
 */
export function presenceAt(range: Range, time: Ticks): number {
  if (time < range.start || time >= range.end) return 0;
  const fade = fadeOf(range);
  return Math.min(1, (time - range.start) / fade, (range.end - time) / fade);
}
