import { LEAST_CHANGE } from '@/core/vision/luma';
import type { PointerLook } from '@/core/vision/look';
import { pathOf, type Found, type Picture } from '@/core/vision/pointer-path';
import type { Size } from '@/core/scale/rect';
import { framesPerSecond, type FrameRate } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { LONGEST_GAP, PointerLearner } from './learn';
import { inTiles, Pictures } from './pictures';
import { PointerTracker } from './track';

/** Pictures of a recording from some second on, one after the other. */
export interface PictureStream extends Disposable {
  /** Reads the next; false at the end. */
  read(into: Uint8Array): boolean;
}

/** What was found of the pointer in a recording. */
export interface SightedPointer {
  readonly looks: readonly PointerLook[];
  readonly pictures: readonly Picture[];
  readonly path: readonly Found[];
  /** How many pictures were looked at a second time. */
  readonly again: number;
}

/** So many places make a look believed at once; in the end fewer do. */
const SOON = 6;
const IN_THE_END = 3;
/** Whether there are new looks is asked each so many pictures. */
const OFTEN = 24;
/** A tile that has this many changed samples has changed. */
const FEWEST = 2;
/** Stretches that are looked at again begin and end with so many pictures that were sure. */
const LEAD = 12;
/** Stretches nearer to each other than this are looked at as one. */
const JOIN = 45;

interface Run {
  readonly from: number;
  readonly to: number;
}

/** Runs of pictures in which the pointer was not found, with some around. */
function weakRuns(path: readonly Found[], unlearned: number): Run[] {
  const runs: Run[] = [];
  for (const [i, { at }] of path.entries()) {
    if (at && i >= unlearned) continue;
    const [from, to] = [Math.max(0, i - LEAD), Math.min(path.length, i + LEAD)];
    const last = runs[runs.length - 1];
    if (last && from <= last.to + JOIN) runs[runs.length - 1] = { from: last.from, to };
    else runs.push({ from, to });
  }
  return runs;
}

/**
 * Finds a baked-in pointer in the pictures of a recording. In one pass over them its looks are
 * learned from what moves, and looked for as soon as they are known; what came before, and
 * stretches in which it was not found, are looked at once more with all that was learned.
 *
 * @param open the recording's luma from a second on, in whole tiles
 */
export function sightPointer(
  heap: KernelHeap,
  size: Size,
  rate: FrameRate,
  open: (seconds: number) => PictureStream,
): SightedPointer {
  const msOf = (index: number) => (index * 1000) / framesPerSecond(rate);
  using pictures = new Pictures(heap, inTiles(size), LONGEST_GAP + 1);
  const learner = new PointerLearner(pictures, inTiles(size));
  (globalThis as any).L = learner;
  using tracker = new PointerTracker(pictures, []);
  /** Each look is known from this picture on. */
  const since: number[] = [];
  {
    using stream = open(0);
    while (pictures.take((into) => stream.read(into))) {
      const index = pictures.count - 1;
      const changed = index ? pictures.changedSince(1, LEAST_CHANGE, FEWEST) : [];
      learner.look(changed);
      if (index % OFTEN === 0) {
        const looks = learner.looks(SOON);
        while (since.length < looks.length) since.push(index);
        tracker.know(looks);
      }
      tracker.look(msOf(index), changed);
    }
  }
  const looks = learner.looks(IN_THE_END);
  const path = pathOf(tracker.found);
  const found = [...tracker.found];
  let again = 0;
  if (looks.length)
    for (const { from, to } of weakRuns(path, since[0] ?? Infinity)) {
      const late = looks.some((_, i) => (since[i] ?? Infinity) > from);
      if (!late) continue;
      again += to - from;
      sightAgain(heap, size, looks, from, to, msOf, open).forEach((picture, i) => {
        found[from + i] = picture;
      });
    }
  return {
    looks: learner.refined(),
    pictures: found,
    path: again ? pathOf(found) : path,
    again,
  };
}

/** Looks at a run of pictures with all looks. */
function sightAgain(
  heap: KernelHeap,
  size: Size,
  looks: readonly PointerLook[],
  from: number,
  to: number,
  msOf: (index: number) => number,
  open: (seconds: number) => PictureStream,
): readonly Picture[] {
  using pictures = new Pictures(heap, inTiles(size), 2);
  using tracker = new PointerTracker(pictures, looks);
  using stream = open(msOf(from) / 1000);
  for (let i = from; i < to && pictures.take((into) => stream.read(into)); i++)
    tracker.look(msOf(i), i > from ? pictures.changedSince(1, LEAST_CHANGE, FEWEST) : []);
  return tracker.found;
}
