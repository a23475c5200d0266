import { clipEnd, handles, sourceTime } from '../project/clip-time';
import type { Clip, Project } from '../project/model';
import { clipAt } from '../project/query';
import type { Sources } from '../project/sources';
import type { Ticks } from '../time/ticks';
import { EditError } from './error';
import { followClips } from './follow';
import {
  linkedClips,
  orderLanes,
  unlockedClip,
  unlockedLane,
  withLinked,
  type Found,
} from './lookup';
import { headOf, relinker, tailOf } from './pieces';

/**
 * Splits a clip, and those linked to it, at an instant strictly inside.
 * @throws EditError on a boundary or outside.
 */
export function splitClip(project: Project, id: string, time: Ticks, newId: () => string): void {
  const { clip } = unlockedClip(project, id);
  if (time <= clip.start || time >= clipEnd(clip))
    throw new EditError(
      'There is already a cut here. Put the playhead inside the clip to split it.',
    );
  const link = clip.link && newId();
  for (const { lane, clip: each } of linkedClips(project, id)) {
    if (time >= clipEnd(each)) continue;
    if (time <= each.start) {
      each.link = link;
      continue;
    }
    const at = lane.clips.indexOf(each);
    lane.clips.splice(at, 1, headOf(each, time), { ...tailOf(each, time, newId()), link });
  }
}

/** Splits every clip on unlocked lanes that an instant falls into. */
export function splitAll(project: Project, time: Ticks, newId: () => string): void {
  const relink = relinker(newId);
  let any = false;
  for (const lane of project.lanes) {
    const clip = lane.locked ? null : clipAt(lane, time);
    if (!clip || clip.start === time) continue;
    lane.clips.splice(lane.clips.indexOf(clip), 1, headOf(clip, time), {
      ...tailOf(clip, time, newId()),
      link: relink(clip.link),
    });
    any = true;
  }
  if (!any)
    throw new EditError(
      'There is nothing to split here: no clip lies under the playhead on an unlocked lane.',
    );
  relinkLater(project, time, relink);
}

/**
 * What was linked to a clip that was split but lies wholly after the cut goes with the later parts.
 */
function relinkLater(
  project: Project,
  time: Ticks,
  relink: (link: string | null) => string | null,
): void {
  const split = new Set<string>();
  for (const lane of project.lanes)
    if (!lane.locked)
      for (const clip of lane.clips) if (clip.link && clipEnd(clip) === time) split.add(clip.link);
  for (const lane of project.lanes)
    if (!lane.locked)
      for (const clip of lane.clips)
        if (clip.link && clip.start >= time && split.has(clip.link)) clip.link = relink(clip.link);
}

export type End = 'start' | 'end';

/**
 * Moves an end of a clip by some ticks; the footage stays where it is. A still has no time before
 * its first, however far its start is pulled.
 */
export function moveEnd(clip: Clip, end: End, by: Ticks): void {
  if (end === 'end') clip.duration += by;
  else {
    clip.source = Math.max(0, sourceTime(clip, clip.start + by));
    clip.start += by;
    clip.duration -= by;
  }
}

/** How far an end of a clip may go, as a change of its time, by its footage and one frame alone. */
export function footageLimits(
  clip: Clip,
  end: End,
  sources: Sources,
  least: Ticks,
): [Ticks, Ticks] {
  const { before, after } = handles(clip, sources.footage[clip.footageId]);
  return end === 'start'
    ? [-Math.min(before, clip.start), clip.duration - least]
    : [least - clip.duration, after];
}

/** How far an end of a clip may go: neighbours, footage and one frame set the limits. */
function trimLimits(
  { lane, clip }: Found,
  end: End,
  sources: Sources,
  least: Ticks,
): [Ticks, Ticks] {
  const index = lane.clips.indexOf(clip);
  const [low, high] = footageLimits(clip, end, sources, least);
  if (end === 'start') {
    const before = lane.clips[index - 1];
    return [Math.max(low, (before ? clipEnd(before) : 0) - clip.start), high];
  }
  const after = lane.clips[index + 1];
  return [low, Math.min(high, (after ? after.start : Infinity) - clipEnd(clip))];
}

/** A clip and those linked to it that share one of its ends. */
export function partnersAt(project: Project, id: string, end: End): Found[] {
  const { clip } = unlockedClip(project, id);
  const edge = (c: Clip) => (end === 'start' ? c.start : clipEnd(c));
  return linkedClips(project, id).filter((f) => f.clip.id === id || edge(f.clip) === edge(clip));
}

/**
 * Moves one end of a clip, and of those linked to it, to an instant or as near as
 * footage and neighbours allow; outwards brings footage back.
 *
 * @param least shortest clip that may remain, in ticks (one frame)
 */
export function trimClip(
  project: Project,
  sources: Sources,
  id: string,
  end: End,
  time: Ticks,
  least: Ticks,
): void {
  const { clip } = unlockedClip(project, id);
  const partners = partnersAt(project, id, end);
  const limits = partners.map((found) => trimLimits(found, end, sources, least));
  const low = Math.max(...limits.map(([l]) => l));
  const high = Math.min(...limits.map(([, h]) => h));
  if (low > high) throw new EditError('The clip can’t be trimmed any further.');
  const by = Math.min(Math.max(time - (end === 'start' ? clip.start : clipEnd(clip)), low), high);
  for (const { clip: each } of partners) moveEnd(each, end, by);
}

/**
 * Moves clips, and what is linked to them, by some ticks; not beyond the start. Those of one lane
 * may go over to another of its kind. Framings and callouts on a screen recording go along.
 *
 * @param lanes from which lane to which
 * @param stay ids of spans that are moved by themselves
 * @throws EditError where something already stands there.
 */
export function moveClips(
  project: Project,
  ids: readonly string[],
  by: Ticks,
  lanes?: { from: string; to: string },
  stay: readonly string[] = [],
): void {
  const group = withLinked(project, ids);
  if (!group.length) return;
  const delta = Math.max(by, -Math.min(...group.map((f) => f.clip.start)));
  const from = lanes && lanes.from !== lanes.to ? unlockedLane(project, lanes.from) : null;
  const to = from && unlockedLane(project, lanes!.to);
  if (from && to && to.kind !== from.kind)
    throw new EditError(`A clip of ${from.name} can’t stand on the lane ${to.name}.`);
  const moving = new Map(group.map((f) => [f.clip.id, f]));
  // Worked out on copies first, so that a refusal leaves everything where it is.
  const planned = new Map(
    project.lanes.map((lane) => [lane, lane.clips.filter((c) => !moving.has(c.id))]),
  );
  for (const { lane, clip } of group) {
    const target = to && lane === from && ids.includes(clip.id) ? to : lane;
    planned.get(target)!.push({ ...clip, start: clip.start + delta });
  }
  const touched = [...new Set([...group.map((f) => f.lane), ...(to ? [to] : [])])];
  orderLanes(touched.map((lane) => ({ ...lane, clips: planned.get(lane)! })));
  const screens = group.flatMap(({ lane, clip }) =>
    lane.kind === 'screen'
      ? [{ footageId: clip.footageId, start: clip.start, end: clipEnd(clip) }]
      : [],
  );
  for (const lane of touched) lane.clips = planned.get(lane)!.sort((a, b) => a.start - b.start);
  followClips(project, screens, delta, new Set(stay));
}

/**
 * Moves a clip and those linked to it so that it begins at an instant; onto another lane of its
 * kind if one is named.
 */
export function moveClip(project: Project, id: string, start: Ticks, laneId?: string): void {
  const { clip, lane } = unlockedClip(project, id);
  moveClips(project, [id], start - clip.start, laneId ? { from: lane.id, to: laneId } : undefined);
}

/**
 * Shifts one recording of a take set against the others it is linked to, by some ticks; it stays
 * linked.
 * @throws EditError where something stands in the way
 */
export function shiftClip(project: Project, id: string, by: Ticks): void {
  const { clip, lane } = unlockedClip(project, id);
  const start = clip.start + by;
  if (start < 0) throw new EditError('The clip can’t begin before the tutorial does.');
  if (lane.clips.some((c) => c !== clip && c.start < start + clip.duration && clipEnd(c) > start))
    throw new EditError(
      `There is no room to shift it on the lane ${lane.name}. Trim it or its neighbour first.`,
    );
  clip.start = start;
}

/** Removes clips and what is linked to them; gaps stay. */
export function liftClips(project: Project, ids: readonly string[]): void {
  const gone = new Set(withLinked(project, ids).map((f) => f.clip.id));
  for (const lane of project.lanes)
    if (lane.clips.some((c) => gone.has(c.id)))
      lane.clips = lane.clips.filter((c) => !gone.has(c.id));
}

/** Frees a clip and its partners from each other. */
export function unlinkClip(project: Project, id: string): void {
  for (const { clip } of linkedClips(project, id)) clip.link = null;
}

/** Links clips, so that they move, trim and split together. */
export function linkClips(project: Project, ids: readonly string[], newId: () => string): void {
  const found = ids.map((id) => unlockedClip(project, id));
  if (found.length < 2) throw new EditError('Select two clips or more to link them.');
  if (new Set(found.map((f) => f.lane.id)).size < found.length)
    throw new EditError(
      'Only clips on different lanes can be linked. To hold clips of one lane together, group them.',
    );
  if (new Set(found.map((f) => f.clip.speed)).size > 1)
    throw new EditError(
      'Clips of different speed can’t be linked, since they would not stay in step.',
    );
  const link = newId();
  for (const { clip } of found) clip.link = link;
}

/** Sets a clip's level in dB, -96 to 24. */
export function setClipGain(project: Project, id: string, gain: number): void {
  unlockedClip(project, id).clip.gain = Math.min(24, Math.max(-96, gain));
}

/** Silences clips, or lets them be heard again. */
export function muteClips(project: Project, ids: readonly string[], muted: boolean): void {
  for (const id of ids) unlockedClip(project, id).clip.muted = muted;
}
