import type { PointerTrack } from './pointer-track';

/** A stretch in milliseconds. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** A pointer that stays within so many pixels is still: hands shake. */
const SHAKE = 3;

/**
 * Stretches of a recording in which the pointer does not move and nothing is pressed, turned or
 * typed, in ms; in order.
 *
 * @param least shorter ones are left out, in ms
 */
export function findStillness(
  track: PointerTrack,
  from: number,
  to: number,
  least: number,
): Stretch[] {
  const busy: number[] = track.events.filter((e) => e.type !== 'shape').map((e) => e.t);
  let at = track.samples[0];
  for (const sample of track.samples) {
    if (at && Math.hypot(sample[1] - at[1], sample[2] - at[2]) <= SHAKE) continue;
    at = sample;
    busy.push(sample[0]);
  }
  busy.sort((a, b) => a - b);
  const found: Stretch[] = [];
  let last = from;
  for (const t of [...busy.filter((b) => b > from && b < to), to]) {
    if (t - last >= least) found.push({ from: last, to: t });
    last = t;
  }
  return found;
}
