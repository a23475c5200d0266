import type { FollowPath } from '@/core/callout/follow-path';
import type { Rect } from '@/core/scale/rect';
import { framesPerSecond, type FrameRate } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { ContentFollower, KEPT, type FollowedPlace, type FollowedRun } from './follow';
import { inTiles, Pictures } from './pictures';
import { reversedPictures } from './reversed';
import type { LumaRecording } from './recording';

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

/** From the picture in which something was marked, with time or against it. */
export type Direction = 'onwards' | 'back';

/** Where content went in one direction. */
export interface FollowedWay {
  /** What it was told by, in the picture in which it was marked. */
  readonly told: Rect;
  readonly runs: readonly FollowedRun[];
}

/** The pictures of a recording that are looked at, by their numbers. */
function picturesIn({ ms, from, to }: FollowedTime, rate: FrameRate) {
  const step = 1000 / framesPerSecond(rate);
  const marked = Math.floor(ms / step + 1e-3);
  const first = Math.max(0, Math.floor(Math.min(from, ms) / step + 1e-3));
  return { step, marked, first, last: Math.max(marked, Math.ceil(to / step - 1e-3) - 1) };
}

/** How many pictures are looked at in a direction. */
export function picturesOf(time: FollowedTime, rate: FrameRate, direction: Direction): number {
  const { marked, first, last } = picturesIn(time, rate);
  return direction === 'onwards' ? last - marked : marked - first;
}

/**
 * Follows what is seen in a rectangle in one direction.
 *
 * @param onPicture is told of each picture that was looked at
 * @returns null if the rectangle shows nothing that could be told again
 */
export function followWay(
  heap: KernelHeap,
  rect: Rect,
  time: FollowedTime,
  { size, rate, open }: LumaRecording,
  direction: Direction,
  onPicture: () => void,
): FollowedWay | null {
  const luma = inTiles(size);
  const { step, marked, first } = picturesIn(time, rate);
  const at = (index: number) => (index * step) / 1000;
  using stream =
    direction === 'onwards'
      ? open(at(marked))
      : reversedPictures((index) => open(at(index)), luma, marked, first);
  using pictures = new Pictures(heap, luma, KEPT);
  if (!pictures.take((into) => stream.read(into))) return null;
  using follower = new ContentFollower(pictures, rect);
  if (!follower.canFollow) return null;
  const most = picturesOf(time, rate, direction);
  for (let i = 0; i < most && pictures.take((into) => stream.read(into)); i++) {
    follower.next();
    onPicture();
  }
  return { told: follower.told, runs: follower.runs };
}

/** The path of content that was followed in both directions. */
export function followedPath(
  time: FollowedTime,
  { size, rate, length }: Pick<LumaRecording, 'size' | 'rate' | 'length'>,
  onwards: FollowedWay,
  back: FollowedWay | null,
): FollowPath {
  const { step, marked, first, last } = picturesIn(time, rate);
  const place = placeOf(onwards.told);
  const later = onwards.runs.map((run) => laterRun(run, marked, step, place));
  const earlier = (back?.runs ?? []).map((run) => earlierRun(run, marked, step, place));
  const [own, ...rest] = later;
  const [before, ...others] = earlier;
  const joined: Run[] = own ? [before ? joinedRuns(before, own) : own] : [];
  return {
    ...{ ms: time.ms, step: rounded(step) },
    ...{ from: rounded(first * step), to: rounded((last + 1) * step) },
    of: { width: size.width, height: size.height, length: rounded(length) },
    runs: [...others.reverse(), ...joined, ...rest],
  };
}

/**
 * Follows what is seen in a rectangle, from the picture in which it was marked on and back.
 *
 * @param onProgress is told the share that is done, 0 to 1
 * @returns null if the rectangle shows nothing that could be told again
 */
export function followContent(
  heap: KernelHeap,
  rect: Rect,
  time: FollowedTime,
  recording: LumaRecording,
  onProgress: (share: number) => void,
): FollowPath | null {
  const count = (direction: Direction) => picturesOf(time, recording.rate, direction);
  const all = Math.max(1, count('onwards') + count('back'));
  let done = 0;
  const go = (direction: Direction) =>
    followWay(heap, rect, time, recording, direction, () => onProgress(++done / all));
  const onwards = go('onwards');
  return onwards && followedPath(time, recording, onwards, count('back') ? go('back') : null);
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
