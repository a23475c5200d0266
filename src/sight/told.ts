import { changedPlaces, type ChangedPlace } from '@/core/vision/changed-places';
import { withoutPointer, type Change } from '@/core/vision/changes';
import { inferDrags, pressesWithDrags } from '@/core/vision/drags';
import { foundTrack, type FoundSpot } from '@/core/vision/found-track';
import type { PointerLook } from '@/core/vision/look';
import type { Found, Picture } from '@/core/vision/pointer-path';
import { inferPresses } from '@/core/vision/presses';
import { screenActivities, type ScreenActivity } from '@/core/vision/screen-activity';
import type { Rect, Size } from '@/core/scale/rect';
import type { PointerTrack } from '@/core/telemetry/pointer-track';

/** What the pictures of a recording told, by now or in the end. */
export interface Seen {
  readonly looks: readonly PointerLook[];
  readonly path: readonly Found[];
  readonly pictures: readonly Picture[];
  /** What changed from each picture to the next, the pointer's own motion with it. */
  readonly changes: readonly Change[];
}

/** What follows from that. */
export interface Told {
  /** The pointer's track; null if it was not found anywhere. */
  readonly track: PointerTrack | null;
  /** What happened beside the pointer. */
  readonly activities: readonly ScreenActivity[];
  readonly changes: readonly ChangedPlace[] | null;
}

/** The pointer's track, and what happened beside it, in pixels of the recording of some size. */
export function toldOf({ looks, path, pictures, changes: all }: Seen, size: Size): Told {
  const spots = path.map(({ at, confidence }, i): FoundSpot | null => {
    const look = at && looks[at.look];
    if (!look) return null;
    const { x, y } = look.hotspot;
    const { form, width, height } = look;
    const reach = { left: x, top: y, right: width - x, bottom: height - y };
    return { ms: pictures[i]!.ms, x: at.x + x, y: at.y + y, form, confidence, reach };
  });
  const footprint = (i: number): Rect | null => {
    const at = path[i]?.at;
    const look = at && looks[at.look];
    return look ? { x: at.x, y: at.y, width: look.width, height: look.height } : null;
  };
  const changes = all.map((change, i) => ({
    ...change,
    boxes: withoutPointer(change.boxes, footprint(i - 1), footprint(i)),
    calm: withoutPointer(change.calm, footprint(i - 1), footprint(i)),
  }));
  const times = pictures.map(({ ms }) => ms);
  const activities = screenActivities(changes, size);
  const presses = pressesWithDrags(inferPresses(spots, changes), inferDrags(spots, changes));
  return {
    activities,
    changes: changedPlaces(changes, activities),
    track: foundTrack(spots, times, presses, size),
  };
}
