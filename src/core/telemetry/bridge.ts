import type { PointerSample, PointerTrack } from './pointer-track';
import { pointerAt } from './sample';

/** The way from where the pointer stood at the pause to where it went on takes this long. */
const BRIDGE_MS = 350;
const STEP_MS = 16;
/** A way shorter than this, in pixels, is no jump. */
const LEAST_WAY = 2;

/** Minimum-jerk position over 0..1: how a hand starts and stops (Flash and Hogan, 1985). */
const minimumJerk = (u: number) => u * u * u * (10 - 15 * u + 6 * u * u);

/**
 * A track whose jumps over pauses are bridged: after each `join` the pointer glides from where it
 * was before to where it is, instead of being there at once. Only for tracks that the pointer is
 * drawn from; where the recording shows its own pointer the two would part. Times and places as in
 * the track.
 */
export function bridgeJoins(track: PointerTrack): PointerTrack {
  const joins = track.events.filter((e) => e.type === 'join').map((e) => e.t);
  if (!joins.length || track.inPicture !== false) return track;
  let samples: readonly PointerSample[] = track.samples;
  for (const join of joins) {
    const now = { ...track, samples };
    const before = samples.findLast(([t]) => t < join);
    if (!before) continue;
    const arrived = pointerAt(now, join + BRIDGE_MS);
    if (Math.hypot(arrived.x - before[1], arrived.y - before[2]) < LEAST_WAY) continue;
    const glide: PointerSample[] = [[join, before[1], before[2]]];
    for (let t = join + STEP_MS; t < join + BRIDGE_MS; t += STEP_MS) {
      const u = minimumJerk((t - join) / BRIDGE_MS);
      const to = pointerAt(now, t);
      glide.push([t, before[1] + (to.x - before[1]) * u, before[2] + (to.y - before[2]) * u]);
    }
    glide.push([join + BRIDGE_MS, arrived.x, arrived.y]);
    samples = [
      ...samples.filter(([t]) => t < join),
      ...glide,
      ...samples.filter(([t]) => t > join + BRIDGE_MS),
    ];
  }
  return { ...track, samples };
}
