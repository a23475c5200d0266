import type { Clip, Project } from '../project/model';
import type { Sources } from '../project/sources';
import type { Ticks } from '../time/ticks';
import { EditError } from './error';
import { isFree, linkedClips, sortLane, unlockedClip, type Found } from './lookup';

/** The part of a clip before or after an instant, as a new clip. */
export function cutClip(clip: Clip, from: Ticks, to: Ticks, id: string): Clip {
  return { ...clip, id, start: from, duration: to - from, source: clip.source + (from - clip.start) };
}

/**
 * Splits a clip, and those linked to it, at an instant strictly inside.
 * @throws EditError on a boundary or outside.
 */
export function splitClip(project: Project, id: string, time: Ticks, newId: () => string): void {
  const { clip } = unlockedClip(project, id);
  if (time <= clip.start || time >= clip.start + clip.duration)
    throw new EditError('There is already a cut here. Put the playhead inside the clip to split it.');
  const link = clip.link && newId();
  for (const { lane, clip: each } of linkedClips(project, id)) {
    const end = each.start + each.duration;
    if (time >= end) continue;
    if (time <= each.start) {
      each.link = link;
      continue;
    }
    const right = { ...cutClip(each, time, end, newId()), link };
    each.duration = time - each.start;
    lane.clips.splice(lane.clips.indexOf(each) + 1, 0, right);
  }
}

/** Splits every clip on unlocked lanes that an instant falls into. */
export function splitAll(project: Project, time: Ticks, newId: () => string): void {
  let any = false;
  const links = new Map<string, string>();
  for (const lane of project.lanes) {
    if (lane.locked) continue;
    const clip = lane.clips.find((c) => time > c.start && time < c.start + c.duration);
    if (!clip) continue;
    if (clip.link && !links.has(clip.link)) links.set(clip.link, newId());
    const right = { ...cutClip(clip, time, clip.start + clip.duration, newId()), link: clip.link && links.get(clip.link)! };
    clip.duration = time - clip.start;
    lane.clips.splice(lane.clips.indexOf(clip) + 1, 0, right);
    any = true;
  }
  if (!any) throw new EditError('There is nothing to split here: no clip lies under the playhead on an unlocked lane.');
}

/** How far one end of a clip may go, as a change of that end's time: neighbours, footage and one frame set the limits. */
function trimLimits({ lane, clip }: Found, end: 'start' | 'end', sources: Sources, least: Ticks): [Ticks, Ticks] {
  const index = lane.clips.indexOf(clip);
  const footage = sources.footage[clip.footageId];
  const stop = clip.start + clip.duration;
  if (end === 'start') {
    const before = lane.clips[index - 1];
    return [Math.max((before ? before.start + before.duration : 0) - clip.start, -clip.source), clip.duration - least];
  }
  const after = lane.clips[index + 1];
  const room = !footage || footage.kind === 'image' ? Infinity : footage.duration - (clip.source + clip.duration);
  return [least - clip.duration, Math.min((after ? after.start : Infinity) - stop, room)];
}

/**
 * Moves one end of a clip, and of those linked to it, to an instant or as near as
 * footage and neighbours allow; outwards brings footage back.
 *
 * @param least shortest clip that may remain, in ticks (one frame)
 */
export function trimClip(project: Project, sources: Sources, id: string, end: 'start' | 'end', time: Ticks, least: Ticks): void {
  const { clip } = unlockedClip(project, id);
  const at = end === 'start' ? clip.start : clip.start + clip.duration;
  const partners = linkedClips(project, id).filter(
    (f) => f.clip.id === id || (end === 'start' ? f.clip.start : f.clip.start + f.clip.duration) === at,
  );
  const limits = partners.map((found) => trimLimits(found, end, sources, least));
  const low = Math.max(...limits.map(([l]) => l));
  const high = Math.min(...limits.map(([, h]) => h));
  if (low > high) throw new EditError('The clip can’t be trimmed any further.');
  const delta = Math.min(Math.max(time - at, low), high);
  for (const { clip: each } of partners) {
    if (end === 'end') each.duration += delta;
    else {
      each.start += delta;
      each.source += delta;
      each.duration -= delta;
    }
  }
}

/**
 * Moves a clip and those linked to it so that it begins at an instant; onto another
 * lane of its kind if one is named.
 * @throws EditError where something already stands there.
 */
export function moveClip(project: Project, id: string, start: Ticks, laneId?: string): void {
  const { clip, lane } = unlockedClip(project, id);
  const target = laneId ? project.lanes.find((l) => l.id === laneId) : lane;
  if (!target) throw new EditError('That lane is no longer there.');
  if (target.locked) throw new EditError(`The lane ${target.name} is locked. Unlock it first.`);
  if (target.kind !== lane.kind) throw new EditError(`A clip of ${lane.name} can’t stand on the lane ${target.name}.`);
  const group = linkedClips(project, id);
  const earliest = Math.min(...group.map((f) => f.clip.start));
  const delta = Math.max(start - clip.start, -earliest);
  const moving = new Set(group.map((f) => f.clip.id));
  for (const found of group) {
    const on = found.clip.id === id ? target : found.lane;
    const from = found.clip.start + delta;
    if (!isFree(on, from, from + found.clip.duration, moving))
      throw new EditError(`There is no room here on the lane ${on.name}. Move the clip to a gap, or make one first.`);
  }
  for (const found of group) {
    found.clip.start += delta;
    if (found.clip.id === id && target !== lane) {
      target.clips.push(lane.clips.splice(lane.clips.indexOf(clip), 1)[0]!);
      sortLane(target);
    }
    sortLane(found.lane);
  }
}

/** Removes clips and what is linked to them; gaps stay. */
export function liftClips(project: Project, ids: readonly string[]): void {
  const gone = new Set(ids.flatMap((id) => linkedClips(project, id).map((f) => f.clip.id)));
  for (const lane of project.lanes) if (lane.clips.some((c) => gone.has(c.id))) lane.clips = lane.clips.filter((c) => !gone.has(c.id));
}

/** Frees a clip and its partners from each other. */
export function unlinkClip(project: Project, id: string): void {
  for (const { clip } of linkedClips(project, id)) clip.link = null;
}

/** Sets a clip's level in dB, -96 to 24. */
export function setClipGain(project: Project, id: string, gain: number): void {
  unlockedClip(project, id).clip.gain = Math.min(24, Math.max(-96, gain));
}
