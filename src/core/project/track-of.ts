import { correctTrack } from '../telemetry/correct';
import type { PointerTrack } from '../telemetry/pointer-track';
import { ticksToSeconds } from '../time/ticks';
import type { Project } from './model';
import type { PathCorrection } from './parts/correction';
import { footageOf, type Sources } from './sources';

type Made = readonly PathCorrection[];

/**
 * Corrected tracks by what was mended and of which track: they are asked for with every picture.
 */
const known = new WeakMap<Made, { base: PointerTrack | null; track: PointerTrack }>();

/** Where nothing was found, a path that was drawn by hand is all there is. */
function drawnAlone(sources: Sources, footageId: string, made: Made): PointerTrack | null {
  const footage = footageOf(sources, footageId);
  const path = made.find((one) => one.kind === 'path');
  if (!footage || path?.kind !== 'path') return null;
  return {
    ...{ format: 'vistum-pointer', version: 2, width: footage.width, height: footage.height },
    samples: [path.points[0]!],
    hidden: [[0, ticksToSeconds(footage.duration) * 1000 + 1]],
    events: [],
  };
}

/**
 * The pointer track of a recording with what was mended of it in a project; null where there is
 * none. Whoever needs a track asks here.
 */
export function trackOf(
  { corrections }: Pick<Project, 'corrections'>,
  sources: Sources,
  footageId: string,
): PointerTrack | null {
  const { pointers } = sources;
  const base = Object.hasOwn(pointers, footageId) ? (pointers[footageId] ?? null) : null;
  const made = corrections.find((c) => c.footageId === footageId)?.made;
  if (!made?.length) return base;
  const before = known.get(made);
  if (before?.base === base) return before.track;
  const from = base ?? drawnAlone(sources, footageId, made);
  if (!from) return null;
  const track = correctTrack(from, made);
  known.set(made, { base, track });
  return track;
}
