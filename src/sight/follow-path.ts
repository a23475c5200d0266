import type { FollowPath } from '@/core/callout/follow-path';
import type { Rect } from '@/core/scale/rect';
import { framesPerSecond } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { ContentFollower, KEPT, type FollowedPlace, type FollowedRun } from './follow';
import { inTiles, Pictures } from './pictures';
import { reversedPictures } from './reversed';
import type { LumaRecording, PictureStream } from './recording';

/** When what is followed lay where it was marked, and the time that is looked through, in ms. */
export interface FollowedTime {
  readonly ms: number;
  readonly from: number;
  readonly to: number;
}

type Run = FollowPath['runs'][number];
type Place = Run['places'][number];

/** A shift is told to this part of a pixel. */
const rounded = (value: number): number => Math.round(value * 1000) / 1000;

/**
 * Follows what is seen in a rectangle, from the picture in which it was marked on and back.
 *
 * @param onProgress is told the share that is done, 0 to 1
 * @returns null if the rectangle shows nothing that could be told again
 */
export function followContent(
  heap: KernelHeap,
  rect: Rect,
  { ms, from, to }: FollowedTime,
  { size, rate, length, open }: LumaRecording,
  onProgress: (share: number) => void,
): FollowPath | null {
  const luma = inTiles(size);
  const step = 1000 / framesPerSecond(rate);
  const marked = Math.floor(ms / step + 1e-3);
  const first = Math.max(0, Math.floor(Math.min(from, ms) / step + 1e-3));
  const last = Math.max(marked, Math.ceil(to / step - 1e-3) - 1);
  const at = (index: number) => (index * step) / 1000;
  const all = Math.max(1, last - first);
  let done = 0;
  const go = (stream: PictureStream, most: number) => {
    using pictures = new Pictures(heap, luma, KEPT);
    if (!pictures.take((into) => stream.read(into))) return null;
    using follower = new ContentFollower(pictures, rect);
    for (let i = 0; i < most && pictures.take((into) => stream.read(into)); i++) {
      follower.next();
      onProgress(++done / all);
    }
    return follower;
  };
  using onwards = open(at(marked));
  const forwards = go(onwards, last - marked);
  if (!forwards?.canFollow) return null;
  using back = reversedPictures((index) => open(at(index)), luma, marked, first);
  const backwards = go(back, marked - first);
  const place = placeOf(forwards.told);
  const later = forwards.runs.map((run) => laterRun(run, marked, step, place));
  const earlier = (backwards?.runs ?? []).map((run) => earlierRun(run, marked, step, place));
  const [own, ...rest] = later;
  const [before, ...others] = earlier;
  const joined: Run[] = own ? [before ? joinedRuns(before, own) : own] : [];
  return {
    ...{ ms, step: rounded(step), from: rounded(first * step), to: rounded((last + 1) * step) },
    of: { width: size.width, height: size.height, length: rounded(length) },
    runs: [...others.reverse(), ...joined, ...rest],
  };
}

type PlaceOf = (ms: number, place: FollowedPlace) => Place;

const placeOf =
  ({ x: x0, y: y0 }: Rect): PlaceOf =>
  (ms, { x, y, scale, sure }) => [
    rounded(ms),
    rounded(x - x0 * scale),
    rounded(y - y0 * scale),
    rounded(scale),
    sure ? 1 : 0,
  ];

/** A run of pictures from the marked one on, in the recording's time. */
function laterRun({ from, to, places }: FollowedRun, marked: number, step: number, tell: PlaceOf) {
  const ms = (index: number) => rounded((marked + index) * step);
  return {
    ...{ from: ms(from), to: ms(to) },
    places: places.map((one) => tell(ms(one.from), one.place)),
  };
}

/** A run of pictures before the marked one, which were looked at backwards. */
function earlierRun(
  { from, to, places }: FollowedRun,
  marked: number,
  step: number,
  tell: PlaceOf,
): Run {
  const ms = (index: number) => rounded(Math.max(0, (marked + index) * step));
  const ends = places.map((_, i) => places[i + 1]?.from ?? to);
  return {
    ...{ from: ms(1 - to), to: ms(1 - from) },
    // What holds up to a picture, looked at backwards, holds from it on.
    places: places.map((one, i) => tell(ms(1 - ends[i]!), one.place)).reverse(),
  };
}

/** Two runs that have the marked picture in common. */
function joinedRuns(before: Run, own: Run): Run {
  const start = own.places[0]![0];
  const earlier = before.places.filter(([ms]) => ms < start);
  const last = earlier[earlier.length - 1];
  const [, ...same] = own.places[0]!;
  const [, ...was] = last ?? [];
  const later = String(same) === String(was) ? own.places.slice(1) : own.places;
  return { from: before.from, to: own.to, places: [...earlier, ...later] };
}
