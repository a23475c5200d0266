import type { CalloutScene, Handle } from '@/core/callout/kind';
import { kindOf } from '@/core/callout/kinds';
import { calloutScene } from '@/core/frame/callout-layers';
import type { Callout } from '@/core/project/model';
import { turnedAbout, type InOutput, type PointInOutput } from '@/core/scale/rect';
import { frontmost, presenterOf, screenIn, type Scene } from '@/core/scene/scene';
import { contains } from '@/core/time/ranges';
import { shownPlace } from './shown-place';

/** Something in the Picture that can be taken hold of. */
export type Thing =
  | {
      readonly kind: 'callout';
      readonly callout: Callout;
      readonly on: CalloutScene;
      /** What moves when it is dragged there. */
      readonly handle: Handle;
    }
  | {
      readonly kind: 'presenter';
      /** The inset that can be moved; null where the layout places the presenter. */
      readonly inset: InOutput | null;
    }
  | { readonly kind: 'screen'; readonly clipId: string };

/** Thin things are met this near, in frame pixels. */
const NEAR = 8;
/** Something that has a spot only is met this near, in frame pixels. */
const SPOT = 32;

const isIn = ({ x, y }: PointInOutput, box: InOutput, by = 0): boolean =>
  x >= box.x - by && x <= box.x + box.width + by && y >= box.y - by && y <= box.y + box.height + by;

/** The handle by which a callout is moved when it is pressed at a point; null beside it. */
function handleAt(callout: Callout, on: CalloutScene, point: PointInOutput): Handle | null {
  const words = shownPlace(callout, on);
  const handles = kindOf(callout).handles(callout);
  for (const handle of handles) {
    // One that has a spot only is taken hold of there.
    if (handles.length === 1 && !handle.size) {
      const spot = on.toOutput(handle.at);
      if (Math.hypot(point.x - spot.x, point.y - spot.y) <= SPOT) return handle;
    }
    const within = (box: InOutput, about: PointInOutput, by = 0) =>
      isIn(turnedAbout(point, about, -on.turn), box, by);
    if (handle.look === 'words' && words && within(words.box, words.about)) return handle;
    if (handle.look !== 'area' || !handle.size) continue;
    const at = on.toOutput(handle.at);
    const { width, height } = handle.size;
    const box = { ...at, width: width * on.scale, height: height * on.scale };
    if (within(box, at, NEAR)) return handle;
  }
  return null;
}

/** What is uppermost in the Picture at a point in frame pixels, of a scene of the frame's size. */
export function thingAt(scene: Scene, point: PointInOutput): Thing | null {
  const { project, time } = scene;
  for (const callout of project.callouts.toReversed()) {
    if (!contains(callout, time)) continue;
    const on = calloutScene(scene, callout);
    const handle = on && handleAt(callout, on, point);
    if (on && handle) return { kind: 'callout', callout, on, handle };
  }
  const shown = frontmost(scene, 'presenter');
  const presenter = shown && presenterOf(scene, shown);
  if (presenter && isIn(point, presenter.place.destination))
    return {
      kind: 'presenter',
      inset: scene.layout.presenter === 'placed' ? presenter.place.destination : null,
    };
  const screen = screenIn(scene);
  return screen?.placement && isIn(point, screen.placement.destination)
    ? { kind: 'screen', clipId: screen.clip.id }
    : null;
}
