import { sourceMs } from '../project/clip-time';
import { trackOf } from '../project/track-of';
import type { Scene, ScreenView } from '../scene/scene';
import type { PointInFootage } from '../scale/rect';
import type { PointerTrack } from '../telemetry/pointer-track';
import { isHiddenAt, pointerAt } from '../telemetry/sample';

/** The pointer of a recording at an instant. */
export interface PointerNow {
  readonly track: PointerTrack;
  /** Time in the recording, in milliseconds. */
  readonly ms: number;
  /** Where it is, in footage pixels; where it was or will be while it is hidden. */
  readonly at: PointInFootage;
  readonly hidden: boolean;
}

/** What the pointer track of a recording tells at an instant; null without one. */
export function trackIn(
  { project, sources, time }: Scene,
  { clip, footage }: ScreenView,
): PointerNow | null {
  const track = trackOf(project, sources, footage.id);
  if (!track) return null;
  const ms = sourceMs(clip, time);
  return { track, ms, at: pointerAt(track, ms), hidden: isHiddenAt(track, ms) };
}

/** Where the pointer of a recording is; null without a pointer track, and while it is hidden. */
export function pointerIn(scene: Scene, screen: ScreenView): PointerNow | null {
  const now = trackIn(scene, screen);
  return now?.hidden ? null : now;
}
