import type {
  HiddenStretch,
  PointerEvent,
  PointerReach,
  PointerSample,
  PointerTrack,
} from '../telemetry/pointer-track';
import type { Size } from '../scale/rect';
import type { PointerForm } from './pointer-shapes';
import type { InferredPress } from './presses';

/** Where the pointer was found in a picture, what it looked like, and how sure that is. */
export interface FoundSpot {
  readonly ms: number;
  readonly x: number;
  readonly y: number;
  readonly form: PointerForm;
  readonly confidence: number;
  /** How far it reaches from there, in pixels. */
  readonly reach: PointerReach;
}

/** The pointer is hidden only if it is not found for so many ms. */
const HIDDEN = 120;
/** An inferred press lasts so long, in ms. */
const PRESS = 90;

const rounded = (value: number, steps: number): number => Math.round(value * steps) / steps;

/** Samples without those in the middle of a rest. */
function samplesOf(spots: readonly (FoundSpot | null)[]): PointerSample[] {
  const samples: PointerSample[] = [];
  for (const [i, spot] of spots.entries()) {
    if (!spot) continue;
    const [before, after] = [spots[i - 1], spots[i + 1]];
    const same = (other: FoundSpot | null | undefined) =>
      other && Math.abs(other.x - spot.x) < 0.25 && Math.abs(other.y - spot.y) < 0.25;
    if (same(before) && same(after)) continue;
    samples.push([
      ...([rounded(spot.ms, 10), rounded(spot.x, 100), rounded(spot.y, 100)] as const),
      rounded(spot.confidence, 100),
    ]);
  }
  return samples;
}

function hiddenOf(spots: readonly (FoundSpot | null)[], times: readonly number[]): HiddenStretch[] {
  const hidden: HiddenStretch[] = [];
  let from: number | null = null;
  const end = (to: number) => {
    if (from !== null && to - from >= HIDDEN) hidden.push([rounded(from, 10), rounded(to, 10)]);
    from = null;
  };
  for (const [i, ms] of times.entries()) {
    if (spots[i]) end(ms);
    else from ??= ms;
  }
  const last = times[times.length - 1] ?? 0;
  end(last + (last - (times[times.length - 2] ?? last)));
  return hidden;
}

/** How far the pointer reaches in any of its looks. */
function reachOf(spots: readonly (FoundSpot | null)[]): PointerReach {
  const most = { left: 0, top: 0, right: 0, bottom: 0 };
  for (const spot of spots)
    if (spot)
      for (const side of ['left', 'top', 'right', 'bottom'] as const)
        most[side] = Math.max(most[side], rounded(spot.reach[side], 10));
  return most;
}

/** A change of what the pointer looks like, as tracks tell it. */
const shapeOf = (form: PointerForm): string => (form === 'other' ? 'arrow' : form);

function shapesOf(spots: readonly (FoundSpot | null)[]): PointerEvent[] {
  const events: PointerEvent[] = [];
  let known = 'arrow';
  for (const spot of spots) {
    const shape = spot ? shapeOf(spot.form) : known;
    if (spot && shape !== known) events.push({ t: rounded(spot.ms, 10), type: 'shape', shape });
    known = shape;
  }
  return events;
}

/**
 * The pointer track (version 2) of a pointer that was found in the pictures of a recording; null if
 * it was found in none.
 *
 * @param spots where it was, picture by picture; null where it was not seen
 * @param times when each picture is seen, in milliseconds
 */
export function foundTrack(
  spots: readonly (FoundSpot | null)[],
  times: readonly number[],
  presses: readonly InferredPress[],
  { width, height }: Size,
): PointerTrack | null {
  const samples = samplesOf(spots);
  if (!samples.length) return null;
  const events = presses.flatMap(({ ms, confidence, until }): PointerEvent[] => {
    const sure = { button: 0, confidence: rounded(confidence, 100) };
    return [
      { t: rounded(ms, 10), type: 'down', ...sure },
      { t: rounded(until ?? ms + PRESS, 10), type: 'up', ...sure },
    ];
  });
  return {
    ...{ format: 'vistum-pointer', version: 2, width, height, inPicture: true, source: 'found' },
    reach: reachOf(spots),
    samples,
    hidden: hiddenOf(spots, times),
    events: [...events, ...shapesOf(spots)].sort((a, b) => a.t - b.t),
  };
}
