import { sourceTime } from '../project/clip-time';
import { trackOf } from '../project/track-of';
import type { Scene, ScreenView } from '../scene/scene';
import type { PointInFootage } from '../scale/rect';
import type { PointerTrack } from '../telemetry/pointer-track';
import { isHiddenAt, pointerAt } from '../telemetry/sample';
import { ticksToSeconds } from '../time/ticks';

/** The pointer of a recording at an instant. */
export interface PointerNow {
  readonly track: PointerTrack;
  /** Time in the recording, in milliseconds. */
  readonly ms: number;
  /** Where it is, in footage pixels. */
  readonly at: PointInFootage;
}

/** Where the pointer of a recording is; null without a pointer track, and while it is hidden. */
export function pointerIn(
  { project, sources, time }: Scene,
  { clip, footage }: ScreenView,
): PointerNow | null {
  const track = trackOf(project, sources, footage.id);
  if (!track) return null;
  const ms = ticksToSeconds(sourceTime(clip, time)) * 1000;
  return isHiddenAt(track, ms) ? null : { track, ms, at: pointerAt(track, ms) };
}
