import type { ScreenView } from '@/core/scene/scene';
import { sourceMs } from '@/core/project/clip-time';
import { intersect, type Rect } from '@/core/scale/rect';
import type { Point } from '@/core/schema/parts';
import { framesPerSecond, type Ticks } from '@/core/time/ticks';
import type { Appearance } from '@/core/vision/follow/appearance';
import { resized } from '@/core/vision/follow/between';
import { likenessAt } from '@/core/vision/follow/likeness';
import type { Luma } from '@/core/vision/luma';
import type { KernelHeap } from '@/kernels/heap';
import type { LumaRecording } from '@/sight/recording';
import { eachSighting } from '@/sight/sightings-of';
import type { Hidden } from './covered';

/** A place shows what is to be hidden, before anything lies over it, with this likeness. */
const SHOWS = 0.5;

/** Where what a cover is to hide is seen in its recording, picture by picture. */
export interface Seen extends Hidden {
  readonly appearance: Appearance;
  readonly places: readonly (readonly Point[])[];
  readonly fps: number;
}

const pictureAt = (ms: number, fps: number): number => Math.floor((ms * fps) / 1000 + 1e-3);

/** Looks through a recording for what a cover is to hide; null where that shows nothing. */
export function lookFor(heap: KernelHeap, hidden: Hidden, recording: LumaRecording): Seen | null {
  const places: (readonly Point[])[] = [];
  const { rect, ms } = hidden;
  const appearance = eachSighting(heap, rect, ms, recording, (index, found) => {
    places[index] = found;
  });
  return appearance && { ...hidden, appearance, places, fps: framesPerSecond(recording.rate) };
}

/** A recording as it is seen in a part of the picture. */
export type SeenView = Pick<ScreenView, 'clip' | 'scale' | 'stage' | 'toOutput'>;

/** Whether what is to be hidden was looked for already, with the same cover at another time. */
export const isKnown = ({ coverId, rect, ms }: Hidden, seen: readonly Seen[]): boolean =>
  seen.some(
    (one) =>
      one.coverId === coverId &&
      one.places[pictureAt(ms, one.fps)]?.some(
        ({ x, y }) => Math.abs(x - rect.x) < 2 && Math.abs(y - rect.y) < 2,
      ),
  );

/**
 * The places at which a picture of the export shows what is to be hidden, as long as nothing lies
 * over it, in its pixels.
 *
 * @param bare the picture without anything over the recording
 * @param time of the timeline
 */
export function placesShown(
  { appearance, places, fps }: Seen,
  screen: SeenView,
  bare: Luma,
  time: Ticks,
): Rect[] {
  const index = pictureAt(sourceMs(screen.clip, time), fps);
  const { width, height } = appearance;
  const found = new Map<string, Rect>();
  // Which of two pictures is shown is a matter of rounding: it is told by what is there.
  for (const { x, y } of [index, index - 1, index + 1].flatMap((near) => places[near] ?? [])) {
    const rect = {
      ...screen.toOutput({ x, y }),
      ...{ width: width * screen.scale, height: height * screen.scale },
    };
    // As large as it is in the recording.
    const there = { data: resized(bare, rect, width, height), stride: width, width, height };
    if (likenessAt(appearance, there, 0, 0).mean < SHOWS) continue;
    found.set(`${x} ${y}`, intersect(rect, screen.stage));
  }
  return [...found.values()];
}
