import { sourceTime } from '../project/clip-time';
import type { Placement } from '../layout/rectangles';
import type { FootageLook } from '../project/model';
import { isCrisp, lookOf } from '../project/query';
import type { FootageFacts } from '../project/sources';
import type { Scene, Shown } from '../scene/scene';
import { same } from '../schema/same';
import type { Ticks } from '../time/ticks';
import { PLAIN_VIDEO, UNADJUSTED, type VideoLayer } from './plan';

/** The change of light and colours that was set for a recording, if any. */
function adjustOf(look: FootageLook | null): VideoLayer['adjust'] {
  if (!look) return null;
  const { brightness, contrast, exposure, saturation, temperature } = look;
  const adjust = { brightness, contrast, exposure, saturation, temperature };
  return same(adjust, UNADJUSTED) ? null : adjust;
}

/** A transition may ask for a moment before or after a recording by a rounding. */
const withinFootage = (time: Ticks, footage: FootageFacts): Ticks =>
  Math.min(Math.max(0, time), Math.max(0, footage.duration - 1));

/** What a clip shows in a scene, in its place and with what was set for its recording. */
export function videoLayer(
  scene: Scene,
  { clip, footage }: Shown,
  placement: Placement,
  more: Partial<VideoLayer> = {},
): VideoLayer {
  const look = lookOf(scene.project, footage.id);
  return {
    kind: 'video',
    clipId: clip.id,
    footageId: footage.id,
    // A still has one picture, whatever the time.
    time: footage.kind === 'image' ? 0 : withinFootage(sourceTime(clip, scene.time), footage),
    speed: footage.kind === 'image' ? 0 : clip.speed,
    footage: { width: footage.width, height: footage.height },
    ...placement,
    ...PLAIN_VIDEO,
    ...(look && { opacity: look.opacity, blend: look.blend, turn: look.tilt }),
    crisp: isCrisp(scene.project, footage),
    adjust: adjustOf(look),
    ...more,
  };
}
