import { countFront } from '../bisect';
import type { PointerTrack } from './pointer-track';

/** Index of the last sample at or before a time in ms; -1 before the first. */
const lastSampleAt = (track: PointerTrack, ms: number): number =>
  countFront(track.samples, ([at]) => at <= ms) - 1;

/**
 * Where the pointer is at a time in ms: between two samples on the straight line, outside them at
 * the nearest.
 */
export function pointerAt(track: PointerTrack, ms: number): { x: number; y: number } {
  const index = lastSampleAt(track, ms);
  const [t0, x0, y0] = track.samples[Math.max(0, index)]!;
  const after = track.samples[index + 1];
  if (!after || index < 0) return { x: x0, y: y0 };
  const u = after[0] > t0 ? (ms - t0) / (after[0] - t0) : 1;
  return { x: x0 + (after[1] - x0) * u, y: y0 + (after[2] - y0) * u };
}

/** Whether the pointer is known not to be seen at a time in ms. */
export function isHiddenAt({ hidden = [] }: PointerTrack, ms: number): boolean {
  const stretch = hidden[countFront(hidden, ([from]) => from <= ms) - 1];
  return !!stretch && ms < stretch[1];
}

/**
 * What a pointer can look like. Those that resize are double arrows: across, down, and along the
 * diagonals that fall and rise from left to right.
 */
export type PointerShape =
  | 'arrow'
  | 'text'
  | 'hand'
  | 'across'
  | 'down'
  | 'falling'
  | 'rising'
  | 'busy';

/** Names of shapes, ours and those of the web platform's `cursor`. */
const SHAPES: Readonly<Record<string, PointerShape>> = {
  ...{ text: 'text', 'vertical-text': 'text' },
  ...{ hand: 'hand', pointer: 'hand', grab: 'hand', grabbing: 'hand' },
  ...{ across: 'across', 'ew-resize': 'across', 'col-resize': 'across' },
  ...{ 'e-resize': 'across', 'w-resize': 'across' },
  ...{ down: 'down', 'ns-resize': 'down', 'row-resize': 'down' },
  ...{ 'n-resize': 'down', 's-resize': 'down' },
  ...{ falling: 'falling', 'nwse-resize': 'falling', 'nw-resize': 'falling' },
  ...{ 'se-resize': 'falling' },
  ...{ rising: 'rising', 'nesw-resize': 'rising', 'ne-resize': 'rising', 'sw-resize': 'rising' },
  ...{ busy: 'busy', wait: 'busy', progress: 'busy' },
};

/**
 * What the pointer looks like at a time in ms, by the last `shape` event; a name that is not known
 * is an arrow.
 */
export function shapeAt(track: PointerTrack, ms: number): PointerShape {
  const name = track.events.findLast((e) => e.type === 'shape' && e.t <= ms)?.shape;
  return name && Object.hasOwn(SHAPES, name) ? SHAPES[name]! : 'arrow';
}

/**
 * A track in the pixels of its recording, for one captured at another scale
 * (a track in CSS pixels beside a recording in device pixels).
 */
export function scaleTrack(track: PointerTrack, width: number, height: number): PointerTrack {
  if (track.width === width && track.height === height) return track;
  const sx = width / track.width;
  const sy = height / track.height;
  const { reach } = track;
  return {
    ...track,
    width,
    height,
    ...(reach && {
      reach: {
        ...{ left: reach.left * sx, right: reach.right * sx },
        ...{ top: reach.top * sy, bottom: reach.bottom * sy },
      },
    }),
    samples: track.samples.map(([t, x, y, ...sure]) => [t, x * sx, y * sy, ...sure]),
  };
}
