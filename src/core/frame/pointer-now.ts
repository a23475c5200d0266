import type { PointerShown } from '../pointer/look';
import { lookKindOf } from '../pointer/looks';
import { looksAt, type LookNow } from '../pointer/looks-at';
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
  /** Whether it is drawn unless something else is wanted, since the recording does not show it. */
  readonly drawn: boolean;
}

/** What the pointer track of a recording tells at an instant; null without one. */
export function trackIn(
  { project, sources, time }: Scene,
  { clip, footage }: ScreenView,
): PointerNow | null {
  const track = trackOf(project, sources, footage.id);
  if (!track) return null;
  const ms = sourceMs(clip, time);
  const hidden = isHiddenAt(track, ms);
  const drawn = track.inPicture === false && !hidden;
  return { track, ms, at: pointerAt(track, ms), hidden, drawn };
}

/** The looks that count at an instant, and how they have the pointer shown. */
export function pointerShown(
  { project, time }: Scene,
  { track, ms, at, hidden, drawn }: PointerNow,
): { readonly looks: readonly LookNow[]; readonly shown: PointerShown } {
  const looks = looksAt(project.pointer, time).filter(
    ({ look }) => !hidden || lookKindOf(look).always,
  );
  const shown = looks.reduce<PointerShown>(
    (so, { look, strength }) => lookKindOf(look).treat?.(look, so, { track, ms, strength }) ?? so,
    { at, size: drawn ? 1 : null, grows: true, opacity: 1, presence: 1, bare: 0 },
  );
  return { looks, shown };
}

/** Where the pointer of a recording is; null without a pointer track, and while it is hidden. */
export function pointerIn(scene: Scene, screen: ScreenView): PointerNow | null {
  const now = trackIn(scene, screen);
  return now?.hidden ? null : now;
}
