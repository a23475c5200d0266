import type { PointerSample, PointerTrack } from './pointer-track';

/** A track with more samples than this is thinned: two hours at 60 a second have fewer. */
export const MOST_SAMPLES = 450_000;

/** How far the pointer may then be from where it was, in pixels. */
const TOLERANCE = 0.25;

/**
 * The slopes, in pixels a millisecond, of lines from a sample that pass all later ones closely
 * enough.
 */
interface Door {
  low: number;
  high: number;
}

const OPEN: Readonly<Door> = { low: -Infinity, high: Infinity };

/**
 * A track without the samples that lie on the way between their neighbours: at any time in
 * milliseconds `pointerAt` is within a quarter of a pixel, on each axis, of what it was. One pass
 * over the samples, after the swinging-door method (E. H. Bristol, 1990). Events and their times
 * stay as they are.
 */
export function thinTrack(track: PointerTrack): PointerTrack {
  const { samples } = track;
  if (samples.length < 3) return track;
  const kept: PointerSample[] = [samples[0]!];
  let anchor = samples[0]!;
  let doors: [Door, Door] = [{ ...OPEN }, { ...OPEN }];
  for (let i = 1; i < samples.length; i++) {
    const now = samples[i]!;
    const time = now[0] - anchor[0];
    const passes =
      time > 0 &&
      doors.every(({ low, high }, axis) => {
        const slope = (now[axis + 1]! - anchor[axis + 1]!) / time;
        return slope >= low && slope <= high;
      });
    if (!passes) {
      // The sample before was seen from the anchor past all between; from it on, the way begins
      // anew.
      const before = samples[i - 1]!;
      if (before !== anchor) kept.push(before);
      anchor = before;
      doors = [{ ...OPEN }, { ...OPEN }];
    }
    const since = now[0] - anchor[0];
    for (const [axis, door] of doors.entries()) {
      const away = now[axis + 1]! - anchor[axis + 1]!;
      // Two samples at one instant: the way can't go on past them.
      door.low = since > 0 ? Math.max(door.low, (away - TOLERANCE) / since) : Infinity;
      door.high = since > 0 ? Math.min(door.high, (away + TOLERANCE) / since) : -Infinity;
    }
  }
  kept.push(samples[samples.length - 1]!);
  return { ...track, samples: kept };
}
