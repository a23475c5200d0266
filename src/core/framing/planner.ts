import type { Framing, Project } from '../project/model';
import { sceneAt, sharpLimitIn } from '../scene/scene';
import { magnification, wholeView } from '../scale/sharpness';
import type { InFootage, Size } from '../scale/rect';
import type { FootageFacts, Sources } from '../project/sources';
import { findActivities, type Activity } from '../telemetry/activity';
import { overlaps, type Range } from '../time/ranges';
import { secondsToTicks, snapToFrame, TICKS_PER_SECOND, type Ticks } from '../time/ticks';
import { sourceEnd } from '../project/clip-time';
import { areaOf, isLaneOn, spanAt, visibleClip } from '../project/query';
import { keepInside } from './path';

/**
 * What makes a plan calm; times in seconds, lengths in pixels of the recording or shares of its
 * width.
 */
export interface PlanOptions {
  /** Closest view allowed; null is the sharp limit. */
  readonly limit: number | null;
  /** A framing that magnifies less than this is not worth the movement. */
  readonly least: number;
  /** Shortest hold. */
  readonly hold: number;
  /** Actions further apart than this are not held together. */
  readonly patience: number;
  /** The view arrives this long before the action, and stays this long after it. */
  readonly before: number;
  readonly after: number;
  /** Gaps to the next framing that are shorter than this are bridged. */
  readonly rest: number;
  /** Room around what is looked at, as a share of the view. */
  readonly margin: number;
}

export const PLAN_DEFAULTS: PlanOptions = {
  limit: null,
  least: 1.12,
  hold: 1.6,
  patience: 3.5,
  before: 0.5,
  after: 1.1,
  rest: 2.2,
  margin: 0.14,
};

type Placed = Omit<Activity, 'kind'> & {
  readonly kinds: readonly Activity['kind'][];
  readonly footageId: string;
};

const RAMP_LEAST = 0.7;
const RAMP_MOST = 1.6;
/**
 * Opening or ending with the whole view is calmer; this much of it is kept at both ends of a shot.
 */
const EDGE = 0.3;

/** Activities on the timeline (start and end in seconds of it), as the screen clips show them. */
function placedActivities(project: Project, sources: Sources): Placed[] {
  const placed: Placed[] = [];
  for (const lane of project.lanes) {
    if (lane.kind !== 'screen' || !isLaneOn(project, lane)) continue;
    for (const clip of lane.clips) {
      const track = sources.pointers[clip.footageId];
      if (!track || clip.speed === 0) continue;
      const from = (clip.source / TICKS_PER_SECOND) * 1000;
      const to = (sourceEnd(clip) / TICKS_PER_SECOND) * 1000;
      const at = (ms: number) => clip.start / TICKS_PER_SECOND + (ms - from) / 1000 / clip.speed;
      for (const { kind, ...a } of findActivities(track))
        if (a.start >= from && a.start < to)
          placed.push({
            ...a,
            kinds: [kind],
            start: at(a.start),
            end: at(Math.min(a.end, to)),
            footageId: clip.footageId,
          });
    }
  }
  return placed.sort((a, b) => a.start - b.start);
}

const join = (a: Placed, b: Placed): Placed => ({
  kinds: [...a.kinds, ...b.kinds],
  footageId: a.footageId,
  start: Math.min(a.start, b.start),
  end: Math.max(a.end, b.end),
  left: Math.min(a.left, b.left),
  top: Math.min(a.top, b.top),
  right: Math.max(a.right, b.right),
  bottom: Math.max(a.bottom, b.bottom),
});

/**
 * The closest allowed view that holds a group with room around it; null where nothing is gained.
 */
function viewOf(
  group: Placed,
  project: Project,
  sources: Sources,
  options: PlanOptions,
): InFootage | null {
  const frame = project.canvas;
  const footage = sources.footage[group.footageId]!;
  const whole = wholeView(areaOf(project, footage), frame);
  // The layout that it is seen in decides how close is still sharp.
  const middle = secondsToTicks((group.start + group.end) / 2);
  const limit = options.limit ?? sharpLimitIn(sceneAt(project, sources, middle), footage);
  const room = 1 - 2 * options.margin;
  const wide = Math.max(
    (group.right - group.left) / room,
    ((group.bottom - group.top) / room) * (frame.width / frame.height),
  );
  const width = Math.max(whole.width / Math.max(limit, 1), wide);
  if (whole.width / width < options.least) return null;
  const height = (width * frame.height) / frame.width;
  const view = keepInside(
    {
      x: (group.left + group.right) / 2 - width / 2,
      y: (group.top + group.bottom) / 2 - height / 2,
      width,
      height,
    },
    whole,
  );
  // Corners on even footage pixels, so that a view at the limit is copied pixel for pixel.
  return { ...view, x: Math.round(view.x / 2) * 2, y: Math.round(view.y / 2) * 2 };
}

/** Groups actions that one calm view can hold together. */
function groupActivities(
  activities: readonly Placed[],
  project: Project,
  sources: Sources,
  options: PlanOptions,
): Placed[] {
  const groups: Placed[] = [];
  for (const activity of activities) {
    const last = groups[groups.length - 1];
    const together =
      last && last.footageId === activity.footageId && activity.start - last.end <= options.patience
        ? join(last, activity)
        : null;
    if (together && viewOf(together, project, sources, options))
      groups[groups.length - 1] = together;
    else groups.push(activity);
  }
  return groups;
}

function reasonFor(group: Placed): string {
  const count = (kind: Activity['kind']) => group.kinds.filter((k) => k === kind).length;
  const many = (n: number, one: string) => (n ? [n === 1 ? one : `${one} ×${n}`] : []);
  return [
    ...many(count('press'), 'press'),
    ...many(count('drag'), 'drag'),
    ...many(count('typing'), 'typing'),
    ...many(count('scroll'), 'scrolling'),
    ...many(count('dwell'), 'pointer resting'),
  ].join(', ');
}

/** Longer ways take longer, within limits that neither rush nor drag. */
function rampFor(view: InFootage, footage: InFootage, frame: Size): Ticks {
  const way = Math.log2(Math.max(1, magnification(view, footage, frame))) * 1.4;
  return secondsToTicks(Math.min(RAMP_MOST, RAMP_LEAST + way * 0.6));
}

interface Candidate {
  start: number;
  end: number;
  view: InFootage;
  footage: FootageFacts;
  reason: string;
}

/**
 * A few calm framings from what the pointer did: near actions share a view, a view
 * arrives before its action and outlasts it, short gaps are bridged, and none
 * magnifies beyond the sharp limit unless `limit` says so. Pinned framings stay
 * as they are and nothing is planned over them.
 *
 * @returns all framings of the project afterwards, in order; places in footage pixels
 */
export function planFramings(
  project: Project,
  sources: Sources,
  newId: () => string,
  options: PlanOptions = PLAN_DEFAULTS,
): Framing[] {
  const pinned = project.framings.filter((f) => f.pinned);
  const rate = project.canvas.frameRate;
  const candidates: Candidate[] = [];
  for (const group of groupActivities(
    placedActivities(project, sources),
    project,
    sources,
    options,
  )) {
    const footage = sources.footage[group.footageId]!;
    const area = areaOf(project, footage);
    const view = viewOf(group, project, sources, options);
    // A single glance (one scroll, one rest) does not earn a movement of its own.
    const slight =
      group.kinds.every((k) => k === 'dwell' || k === 'scroll') &&
      group.end - group.start < options.hold;
    if (!view || slight) continue;
    const ramp = rampFor(view, area, project.canvas) / TICKS_PER_SECOND;
    const start = Math.max(0, group.start - options.before - ramp);
    const end = Math.max(group.end + options.after, start + ramp + options.hold) + ramp;
    candidates.push({ start, end, view, footage, reason: reasonFor(group) });
  }
  const planned = align(candidates, project, options)
    .map((c): Framing => {
      const start = snapToFrame(secondsToTicks(c.start), rate);
      const end = snapToFrame(secondsToTicks(c.end), rate);
      const ramp = Math.min(
        rampFor(c.view, areaOf(project, c.footage), project.canvas),
        Math.floor((end - start) / 2),
      );
      return {
        id: newId(),
        start,
        end,
        rampIn: ramp,
        rampOut: ramp,
        footageId: c.footage.id,
        rect: { ...c.view },
        pinned: false,
        reason: c.reason,
      };
    })
    .filter(
      (f) => f.end - f.start >= secondsToTicks(options.hold) && !pinned.some((p) => overlaps(p, f)),
    );
  return [...pinned, ...planned].sort((a, b) => a.start - b.start);
}

/** Brings candidates in line with each other and with the shots they lie in. */
function align(
  candidates: readonly Candidate[],
  project: Project,
  options: PlanOptions,
): Candidate[] {
  const aligned: Candidate[] = [];
  for (const candidate of candidates) {
    const shot = shotAround(
      project,
      secondsToTicks((candidate.start + candidate.end) / 2),
      candidate.footage.id,
    );
    if (!shot) continue;
    const next = {
      ...candidate,
      start: Math.max(candidate.start, shot.start / TICKS_PER_SECOND + EDGE),
      end: Math.min(candidate.end, shot.end / TICKS_PER_SECOND - EDGE),
    };
    const last = aligned[aligned.length - 1];
    if (last && last.footage.id === next.footage.id && next.start - last.end < options.rest) {
      const near =
        Math.abs(last.view.x - next.view.x) < last.view.width * 0.12 &&
        Math.abs(last.view.y - next.view.y) < last.view.height * 0.12 &&
        Math.abs(last.view.width / next.view.width - 1) < 0.12;
      if (near) {
        last.end = next.end;
        last.reason = [last.reason, next.reason].filter(Boolean).join(', ');
        continue;
      }
      // The view leaves for the next spot in time for its action, but not before its own hold is
      // over.
      const meet = Math.max(next.start, last.start + RAMP_LEAST + options.hold);
      if (next.end - meet < options.hold + RAMP_LEAST) continue;
      last.end = meet;
      next.start = meet;
    }
    if (next.end - next.start >= options.hold) aligned.push(next);
  }
  return aligned;
}

const screenHidden = (project: Project, time: Ticks): boolean =>
  spanAt(project.layouts, time)?.layout.screen === null;

/**
 * The stretch around an instant in which one screen recording is seen and nothing else takes the
 * picture.
 */
function shotAround(project: Project, time: Ticks, footageId: string): Range | null {
  const clip = visibleClip(project, 'screen', time);
  if (!clip || clip.footageId !== footageId || screenHidden(project, time)) return null;
  let start = 0;
  let end = Infinity;
  const lane = project.lanes.find((l) => l.clips.includes(clip))!;
  const at = lane.clips.indexOf(clip);
  // Cuts within one recording keep the view; only another recording or a gap ends a shot.
  let first = at;
  while (
    first > 0 &&
    lane.clips[first - 1]!.footageId === footageId &&
    lane.clips[first - 1]!.start + lane.clips[first - 1]!.duration === lane.clips[first]!.start
  )
    first--;
  let last = at;
  while (
    lane.clips[last + 1]?.footageId === footageId &&
    lane.clips[last + 1]!.start === lane.clips[last]!.start + lane.clips[last]!.duration
  )
    last++;
  start = lane.clips[first]!.start;
  end = lane.clips[last]!.start + lane.clips[last]!.duration;
  for (const span of project.layouts) {
    if (span.layout.screen) continue;
    if (span.end <= time) start = Math.max(start, span.end);
    else if (span.start > time) end = Math.min(end, span.start);
  }
  return { start, end };
}
