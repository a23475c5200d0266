import { countFront } from '../bisect';
import { meet, unite, type Rect } from '../scale/rect';
import type { PointerReach, PointerTrack } from '../telemetry/pointer-track';
import { isHiddenAt, pointerAt } from '../telemetry/sample';
import type { ScreenActivity } from '../vision/screen-activity';
import type { ScreenSight } from '../vision/screen-sight';

/*
 * What lies beneath a pointer that a recording shows is seen in its other pictures: in those of a
 * time at which the pointer is elsewhere, and since or until which nothing happened there.
 */

/** A stretch of a recording, in ms, and the time whose picture shows what lies beneath. */
export interface Uncovered {
  readonly from: number;
  readonly to: number;
  readonly by: number;
}

/** What is known of what happened in a recording, and how long it is. */
type Happenings = Pick<ScreenSight, 'activities' | 'changes' | 'length'>;

/** Stretches are told in steps of so many ms. */
const STEP = 50;
/** A time that serves for less is not worth opening the recording for, in ms. */
const LEAST = 300;
/** A recording is looked through in pieces of so many ms, when they are first asked for. */
const PIECE = 15_000;
/** Times that are tried lie so far from the step, in ms: the nearest pictures are likest. */
const TRIED = [100, 200, 350, 600, 1000, 1600, 2500, 4000, 6500, 10_000, 16_000, 30_000, 60_000];
/** A change is seen a little before and after its time, since pictures are few and codecs blur. */
const AROUND = 120;
/** Room about the pointer for its shadow and the codec's, as a share of the recording's height. */
const ROOM = 0.004;
/** How far a pointer reaches from its tip where that was not found, as shares of the height. */
const USUAL_REACH = { left: 0.012, top: 0.012, right: 0.03, bottom: 0.045 };

/**
 * What a pointer covers of a recording at a time, in pixels: more than it is, less than would be
 * missed.
 */
export function pointerBox(track: PointerTrack, reach: PointerReach, ms: number): Rect {
  return boxAbout(pointerAt(track, ms), track, reach);
}

function boxAbout(
  { x, y }: { x: number; y: number },
  { height }: PointerTrack,
  reach: PointerReach,
): Rect {
  const room = 2 + ROOM * height;
  const { left, top, right, bottom } = reach;
  return {
    ...{ x: x - left - room, y: y - top - room },
    ...{ width: left + right + 2 * room, height: top + bottom + 2 * room },
  };
}

/**
 * All that a pointer covers between two times in ms. Between samples it goes straight, so that none
 * of its turns is missed.
 */
function boxBetween(track: PointerTrack, reach: PointerReach, from: number, to: number): Rect {
  const { samples } = track;
  const turns = samples.slice(
    countFront(samples, ([at]) => at < from),
    countFront(samples, ([at]) => at <= to),
  );
  const points = turns.map(([, x, y]) => ({ x, y }));
  return [pointerAt(track, from), ...points, pointerAt(track, to)]
    .map((point) => boxAbout(point, track, reach))
    .reduce(unite);
}

/** How far the pointer of a recording reaches from its tip, in pixels. */
export function reachOf(track: PointerTrack, sight: ScreenSight): PointerReach {
  const known = track.reach ?? sight.pointer?.reach;
  if (known) return known;
  const { height } = track;
  const { left, top, right, bottom } = USUAL_REACH;
  return {
    ...{ left: left * height, top: top * height },
    ...{ right: right * height, bottom: bottom * height },
  };
}

/** What happened, in order of its start, with the latest end of all up to each. */
interface Timeline {
  readonly sorted: readonly Pick<ScreenActivity, 'start' | 'end' | 'box'>[];
  readonly ends: readonly number[];
}

const timelines = new WeakMap<Happenings, Timeline>();

function timelineOf(sight: Happenings): Timeline {
  const before = timelines.get(sight);
  if (before) return before;
  const { activities, changes } = sight;
  const all =
    changes?.map(([start, end, x, y, width, height]) => ({
      ...{ start, end, box: { x, y, width, height } },
    })) ?? activities;
  const sorted = [...all].sort((a, b) => a.start - b.start);
  let latest = -Infinity;
  const timeline = { sorted, ends: sorted.map(({ end }) => (latest = Math.max(latest, end))) };
  timelines.set(sight, timeline);
  return timeline;
}

/** Whether something happened in a box between two times. */
function happened({ sorted, ends }: Timeline, box: Rect, from: number, to: number): boolean {
  for (let i = countFront(sorted, ({ start }) => start - AROUND <= to) - 1; i >= 0; i--) {
    if (ends[i]! + AROUND < from) return false;
    const { end, box: there } = sorted[i]!;
    if (end + AROUND >= from && meet(there, box)) return true;
  }
  return false;
}

/**
 * For which stretches of a recording it is known what lies beneath its pointer, and by which time's
 * picture; in order. Where the pointer is hidden none is asked for.
 *
 * @param sight what happened in the pictures beside the pointer, and how long the recording is
 * @param range of the recording in ms, on multiples of 50; times beyond it may serve too
 */
export function uncovered(
  track: PointerTrack,
  reach: PointerReach,
  sight: Happenings,
  range: { readonly from: number; readonly to: number },
): Uncovered[] {
  const { length } = sight;
  const timeline = timelineOf(sight);
  const steps = Math.ceil(Math.min(length, range.to) / STEP);
  const boxes = new Map<number, Rect>();
  /** All that the pointer covers in a step. */
  const boxOf = (step: number): Rect => {
    const known = boxes.get(step);
    if (known) return known;
    const box = boxBetween(track, reach, step * STEP, (step + 1) * STEP);
    boxes.set(step, box);
    return box;
  };
  const serves = (by: number, step: number): boolean => {
    const box = boxOf(step);
    // One that was not found may be there all the same.
    const away = isHiddenAt(track, by)
      ? track.source !== 'found'
      : !meet(pointerBox(track, reach, by), box);
    if (!away) return false;
    const [from, to] = [step * STEP, (step + 1) * STEP];
    return !happened(timeline, box, Math.min(by, from), Math.max(by, to));
  };
  const runOf = (by: number, step: number): number => {
    let run = 0;
    while (step + run < steps && serves(by, step + run)) run++;
    return run;
  };
  const found: Uncovered[] = [];
  for (let step = Math.round(range.from / STEP); step < steps;) {
    const at = (step + 0.5) * STEP;
    let best = { by: 0, run: 0 };
    if (!isHiddenAt(track, at))
      for (const by of TRIED.flatMap((away) => [at - away, at + away])) {
        if (by < 0 || by >= length) continue;
        const run = runOf(by, step);
        if (run > best.run) best = { by, run };
      }
    if (best.run * STEP >= LEAST) {
      const from = step * STEP;
      found.push({ from, to: from + best.run * STEP, by: best.by });
    }
    for (let i = 0; i < Math.max(1, best.run); i++) boxes.delete(step + i);
    step += Math.max(1, best.run);
  }
  return found;
}

interface Known {
  readonly sight: ScreenSight;
  readonly pieces: Map<number, readonly Uncovered[]>;
}

const known = new WeakMap<PointerTrack, Known>();

/**
 * The time in ms whose picture shows what the pointer covers at another; null where that is not
 * known. Found once for each piece of a track.
 */
export function beneathAt(track: PointerTrack, sight: ScreenSight, ms: number): number | null {
  let there = known.get(track);
  if (there?.sight !== sight) known.set(track, (there = { sight, pieces: new Map() }));
  const from = Math.floor(ms / PIECE) * PIECE;
  let stretches = there.pieces.get(from);
  if (!stretches) {
    stretches = uncovered(track, reachOf(track, sight), sight, { from, to: from + PIECE });
    there.pieces.set(from, stretches);
  }
  const stretch = stretches[countFront(stretches, ({ from }) => from <= ms) - 1];
  return stretch && ms < stretch.to ? stretch.by : null;
}
