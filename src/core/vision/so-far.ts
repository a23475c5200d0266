import { Type, type Static } from '@sinclair/typebox';
import type { Size } from '../scale/rect';
import { isHiddenAt, pointerAt } from '../telemetry/sample';
import type { PointerTrack } from '../telemetry/pointer-track';

/** Places are told in so many parts of the screen's width and height. */
export const SO_FAR_PARTS = 1000;
const Place = Type.Tuple([Type.Integer(), Type.Integer()]);

export const SightSoFarSchema = Type.Object({
  /** Milliseconds of the recording that are done. */
  until: Type.Number(),
  /** The share of them in which the pointer was found, 0 to 1. */
  pointer: Type.Number(),
  /** The pointer's path at even times; null where it was not found. */
  path: Type.Array(Type.Union([Place, Type.Null()])),
  /** Where presses were inferred. */
  presses: Type.Array(Place),
});

/** What was found by now of the pointer in a recording that is being looked through. */
export type SightSoFar = Static<typeof SightSoFarSchema>;

/** A path is told at so many times at most, and as many of the last presses. */
const MOST = 160;
/** And as often as this at most, in ms. */
const OFTEN = 100;

/**
 * What can be told of a pointer while its recording is looked through: small, for lists.
 *
 * @param until milliseconds of the recording that are done
 * @param size of its pictures
 */
export function soFarOf(track: PointerTrack | null, until: number, size: Size): SightSoFar {
  if (!track) return { until, pointer: 0, path: [], presses: [] };
  const part = (value: number, whole: number) => Math.round((value / whole) * SO_FAR_PARTS) + 0;
  const placeAt = (ms: number): [number, number] => {
    const { x, y } = pointerAt(track, ms);
    return [part(x, size.width), part(y, size.height)];
  };
  const count = Math.max(1, Math.min(MOST, Math.floor(until / OFTEN)));
  const times = Array.from({ length: count }, (_, i) => ((i + 0.5) * until) / count);
  const hidden = (track.hidden ?? []).reduce((sum, [from, to]) => sum + to - from, 0);
  const downs = track.events.filter(({ type }) => type === 'down');
  return {
    until,
    pointer: Math.max(0, 1 - hidden / Math.max(1, until)),
    path: times.map((ms) => (isHiddenAt(track, ms) ? null : placeAt(ms))),
    presses: downs.slice(-MOST).map(({ t }) => placeAt(t)),
  };
}
