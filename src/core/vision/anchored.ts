import type { Point } from '../schema/parts';
import type { PointerTrack } from '../telemetry/pointer-track';
import { pointerAt } from '../telemetry/sample';
import type { PointerLook } from './look';
import type { Candidate, Found, Picture } from './pointer-path';

/** Where a recording's pointer is known to be at some time: its tip, in pixels. */
export interface Anchor extends Point {
  /** In milliseconds. */
  readonly ms: number;
}

/** A look's tip is known to so many pixels while looks are learned. */
const NEAR = 16;

/** The number of the picture that is next to a time, of which there is one at least. */
function nearest(pictures: readonly Picture[], ms: number): number {
  let best = 0;
  pictures.forEach((picture, i) => {
    if (Math.abs(picture.ms - ms) < Math.abs(pictures[best]!.ms - ms)) best = i;
  });
  return best;
}

const isAt = (at: Candidate, looks: readonly PointerLook[], { x, y }: Anchor): boolean => {
  const tip = looks[at.look]?.hotspot ?? { x: 0, y: 0 };
  return Math.hypot(at.x + tip.x - x, at.y + tip.y - y) <= NEAR;
};

/**
 * Pictures of which one leaves no doubt: at the anchor's time the pointer is there, if anything that
 * looks like one is. What was taken for the pointer then, elsewhere, is none of its looks, and is
 * left out everywhere.
 *
 * @param path what was found in the pictures without the anchor
 */
export function anchoredTo(
  anchor: Anchor,
  pictures: readonly Picture[],
  looks: readonly PointerLook[],
  path: readonly Found[],
): readonly Picture[] {
  if (!pictures.length) return pictures;
  const index = nearest(pictures, anchor.ms);
  const there = pictures[index]!.candidates.filter((at) => isAt(at, looks, anchor));
  if (!there.length) return pictures;
  const taken = path[index]?.at;
  const wrong =
    taken && !isAt(taken, looks, anchor) && !there.some(({ look }) => look === taken.look)
      ? taken.look
      : null;
  return pictures.map((picture, i) => {
    if (i === index)
      return { ...picture, candidates: there.map((at): Candidate => ({ ...at, misfit: 0 })) };
    if (wrong === null) return picture;
    return { ...picture, candidates: picture.candidates.filter(({ look }) => look !== wrong) };
  });
}

/**
 * What was found of a pointer around an anchor, as points of a path, `[ms, x, y]`: from where it
 * comes into sight to where it goes out of it. Null where it was not found at the anchor.
 *
 * @param range what is wanted, in milliseconds
 */
export function pathAround(
  track: PointerTrack,
  anchor: Anchor,
  range: { readonly from: number; readonly to: number },
): [number, number, number][] | null {
  const { hidden = [] } = track;
  if (hidden.some(([from, to]) => from <= anchor.ms && anchor.ms < to)) return null;
  const at = pointerAt(track, anchor.ms);
  if (Math.hypot(at.x - anchor.x, at.y - anchor.y) > 2 * NEAR) return null;
  const from = Math.max(range.from, ...hidden.map(([, to]) => to).filter((to) => to <= anchor.ms));
  const to = Math.min(range.to, ...hidden.map(([start]) => start).filter((s) => s > anchor.ms));
  const end = (ms: number): [number, number, number] => {
    const { x, y } = pointerAt(track, ms);
    return [ms, x, y];
  };
  // Rests have samples at their ends alone.
  const within = track.samples.flatMap(([ms, x, y]): [number, number, number][] =>
    ms > from && ms < to ? [[ms, x, y]] : [],
  );
  return to > from ? [end(from), ...within, end(to)] : [end(anchor.ms)];
}
