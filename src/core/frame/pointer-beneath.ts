import { beneathAt, pointerBox, reachOf } from '../pointer/beneath';
import type { Scene, ScreenView } from '../scene/scene';
import { evenCeil, evenFloor, intersect, type InOutput, type Rect } from '../scale/rect';
import { secondsToTicks } from '../time/ticks';
import { hiddenBy } from './edge';
import type { Layer, VideoLayer } from './plan';
import { pointerShown, trackIn } from './pointer-now';
import { videoLayer } from './video-layer';

/** Width of the edge by which what lies beneath goes over into what is around, in output pixels. */
const EDGE = 3;

/**
 * What lies beneath a pointer that the recording itself shows, over it, where the looks want it gone
 * or drawn otherwise: the same spot of the recording at another time. It comes right after the
 * recording, so that covers and all else lie over it. None where it is not known what lies beneath,
 * or the recording is not shown as it is.
 *
 * @param of the recording as it is drawn
 */
export function beneathPointer(scene: Scene, screen: ScreenView, of: VideoLayer): Layer[] {
  const { clip, footage } = screen;
  const pointer = trackIn(scene, screen);
  const { sights = {} } = scene.sources;
  const sight = Object.hasOwn(sights, footage.id) ? sights[footage.id] : undefined;
  if (!pointer || !sight || pointer.hidden || pointer.track.inPicture === false) return [];
  const { track, ms } = pointer;
  const { bare } = pointerShown(scene, pointer).shown;
  if (bare <= 0) return [];
  const by = beneathAt(track, sight, ms);
  const seen = hiddenBy(of);
  if (by === null || !seen) return [];
  const placement = placed(pointerBox(track, reachOf(track, sight), ms), of, seen);
  if (!placement) return [];
  const feather = Math.min(EDGE, placement.destination.width / 4, placement.destination.height / 4);
  return [
    videoLayer(scene, screen, placement, {
      ...{ clipId: `${clip.id} beneath`, time: secondsToTicks(by / 1000), speed: 0 },
      ...{ mask: { shape: 'rectangle', feather }, opacity: bare, crisp: false },
    }),
  ];
}

/** Where a part of a recording is in the output, as far as it is seen, and what of it that is. */
function placed(
  part: Rect,
  { source, destination }: VideoLayer,
  seen: InOutput,
): { source: VideoLayer['source']; destination: InOutput } | null {
  const [sx, sy] = [destination.width / source.width, destination.height / source.height];
  const x = evenFloor(destination.x + (part.x - source.x) * sx);
  const y = evenFloor(destination.y + (part.y - source.y) * sy);
  // Of one size as long as the view stays: its mask need not be made anew with each picture.
  const size = { width: evenCeil(part.width * sx) + 2, height: evenCeil(part.height * sy) + 2 };
  const box = intersect({ x, y, ...size }, seen);
  if (box.width < 4 || box.height < 4) return null;
  return {
    destination: box,
    source: {
      ...{ x: source.x + (box.x - destination.x) / sx, width: box.width / sx },
      ...{ y: source.y + (box.y - destination.y) / sy, height: box.height / sy },
    },
  };
}
