import { clipEnd } from '../project/clip-time';
import type { Clip, Lane, Project } from '../project/model';
import type { Sources } from '../project/sources';
import { overlaps, type Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { mapBeside, mapMarkers } from './beside';
import { footageLimits, moveEnd, partnersAt, type End } from './clips';
import { EditError } from './error';
import { orderLanes, unlockedClip, unlockedLane, withLinked } from './lookup';
import { headOf, partsOutside, relinker, tailOf, type Relink } from './pieces';

const rangeOf = (clip: Clip): Range => ({ start: clip.start, end: clipEnd(clip) });

/**
 * Removes a stretch of time from every unlocked lane and from all that is
 * timed beside them, and closes it. What began after it keeps its distance to everything
 * else that began after it.
 */
export function rippleDelete(project: Project, range: Range, newId: () => string): void {
  const length = range.end - range.start;
  if (length <= 0) throw new EditError('There is nothing to remove: the stretch is empty.');
  const relink = relinker(newId);
  for (const lane of project.lanes) {
    if (lane.locked) continue;
    lane.clips = lane.clips.flatMap((clip) =>
      clipEnd(clip) <= range.start
        ? [clip]
        : partsOutside(clip, range, newId, relink).map((part) =>
            part.start >= range.end ? { ...part, start: part.start - length } : part,
          ),
    );
  }
  const pull = (time: Ticks) => (time <= range.start ? time : Math.max(range.start, time - length));
  mapBeside(project, pull);
  mapMarkers(project, (time) =>
    time < range.start ? time : time < range.end ? null : time - length,
  );
  partLinks(project, range.start, relink);
}

/**
 * What was moved is no longer linked to what stayed, be it before the instant or on a locked lane;
 * moved things that were linked to each other still are.
 *
 * @param from everything on unlocked lanes that begins here or later was moved
 */
export function partLinks(project: Project, from: Ticks, relink: Relink): void {
  const stayed = new Set<string>();
  for (const lane of project.lanes)
    for (const clip of lane.clips)
      if (clip.link && (lane.locked || clip.start < from)) stayed.add(clip.link);
  for (const lane of project.lanes)
    if (!lane.locked)
      for (const clip of lane.clips)
        if (clip.link && clip.start >= from && stayed.has(clip.link)) clip.link = relink(clip.link);
}

/** Removes clips, what is linked to them, and the time they took on every unlocked lane. */
export function rippleDeleteClips(
  project: Project,
  ids: readonly string[],
  newId: () => string,
): void {
  // From the end, so that an earlier stretch is still where it was; overlapping ones are taken as
  // one.
  const merged: Range[] = [];
  for (const range of ids
    .map((id) => rangeOf(unlockedClip(project, id).clip))
    .sort((a, b) => b.start - a.start)) {
    const last = merged[merged.length - 1];
    if (last && overlaps(last, { start: range.start, end: range.end + 1 }))
      merged[merged.length - 1] = {
        start: Math.min(last.start, range.start),
        end: Math.max(last.end, range.end),
      };
    else merged.push(range);
  }
  for (const range of merged) rippleDelete(project, range, newId);
}

/**
 * Makes room: everything on unlocked lanes that begins at an instant or later moves on, with all
 * that is timed beside it. Clips that run across it are split; music plays on through.
 *
 * @param length ticks, above 0
 */
export function rippleInsert(
  project: Project,
  at: Ticks,
  length: Ticks,
  newId: () => string,
): void {
  if (length <= 0) return;
  const relink = relinker(newId);
  for (const lane of project.lanes) {
    if (lane.locked) continue;
    lane.clips = lane.clips.flatMap((clip) => {
      if (clip.start >= at) return [{ ...clip, start: clip.start + length }];
      if (clipEnd(clip) <= at || lane.kind === 'music') return [clip];
      return [
        headOf(clip, at),
        { ...tailOf(clip, at, newId()), start: at + length, link: relink(clip.link) },
      ];
    });
    // Music that played on may now reach into what was moved behind it.
    lane.clips.forEach((clip, i) => {
      const next = lane.clips[i + 1];
      if (next) clip.duration = Math.min(clip.duration, next.start - clip.start);
    });
  }
  const push = (time: Ticks) => (time >= at ? time + length : time);
  mapBeside(project, push, (time) => (time > at ? time + length : time));
  mapMarkers(project, push);
  partLinks(project, at, relink);
}

/**
 * Trims an end of a clip and closes or makes the room for it on every unlocked lane: inwards it is
 * a ripple delete of what is trimmed off, outwards the rest makes room for the footage that comes
 * back.
 *
 * @param least shortest clip that may remain, in ticks (one frame)
 */
export function rippleTrim(
  project: Project,
  sources: Sources,
  id: string,
  end: End,
  time: Ticks,
  least: Ticks,
  newId: () => string,
): void {
  const { clip } = unlockedClip(project, id);
  const edge = end === 'start' ? clip.start : clipEnd(clip);
  const outwards = end === 'start' ? time < edge : time > edge;
  if (!outwards) {
    const to =
      end === 'start' ? Math.min(time, clipEnd(clip) - least) : Math.max(time, clip.start + least);
    if (to === edge) return;
    return rippleDelete(project, { start: Math.min(edge, to), end: Math.max(edge, to) }, newId);
  }
  const partners = partnersAt(project, id, end);
  const room = Math.min(...partners.map((f) => footageRoom(f.clip, end, sources, least)));
  const by = Math.min(Math.abs(time - edge), room);
  if (by <= 0) throw new EditError('There is no more footage to bring back at this end.');
  const ids = partners.map((f) => f.clip.id);
  rippleInsert(project, edge, by, newId);
  // At its start the clip itself was moved on with the rest, and grows back towards where it began.
  for (const { clip: each } of ids.map((each) => unlockedClip(project, each)))
    moveEnd(each, end, end === 'start' ? -by : by);
}

/** How much footage an end can bring back, without regard to what stands there. */
function footageRoom(clip: Clip, end: End, sources: Sources, least: Ticks): Ticks {
  if (end === 'end') return footageLimits(clip, 'end', sources, least)[1];
  // The whole timeline makes room, so the start of the tutorial is no limit.
  return -footageLimits({ ...clip, start: Number.MAX_SAFE_INTEGER }, 'start', sources, least)[0];
}

/** So many ticks are rounding and no footage. */
const ROUNDED = 2;

/**
 * Footage that was taken out at a join, in timeline ticks; 0 where the clips do not belong to one
 * recording or nothing is missing.
 */
export function removedAt(before: Clip | undefined, clip: Clip): Ticks {
  if (
    !before ||
    before.footageId !== clip.footageId ||
    clipEnd(before) !== clip.start ||
    before.speed !== clip.speed ||
    !clip.speed
  )
    return 0;
  const removed = Math.round((clip.source - before.source) / clip.speed) - before.duration;
  // A cut at a speed that makes up for a clock rounds by a tick.
  return removed > ROUNDED ? removed : 0;
}

/**
 * Pulls a join open: brings back up to `length` of what was taken out there, on every unlocked lane
 * that has a join at the instant, while everything after moves on.
 *
 * @throws EditError where nothing was taken out
 */
export function openJoin(project: Project, time: Ticks, length: Ticks, newId: () => string): void {
  const joins = project.lanes.flatMap((lane) => {
    const at = lane.locked ? -1 : lane.clips.findIndex((c) => c.start === time);
    const removed = at > 0 ? removedAt(lane.clips[at - 1], lane.clips[at]!) : 0;
    return removed > 0 ? [{ id: lane.clips[at - 1]!.id, removed }] : [];
  });
  if (!joins.length)
    throw new EditError('No footage was taken out here, so there is nothing to bring back.');
  const by = Math.min(length, Math.max(...joins.map((j) => j.removed)));
  rippleInsert(project, time, by, newId);
  for (const { id, removed } of joins)
    moveEnd(unlockedClip(project, id).clip, 'end', Math.min(by, removed));
}

/**
 * Closes a stretch of time in which nothing stands but music, which plays on: all that begins after
 * it moves up.
 * @throws EditError where music would lie over music
 */
export function closeUp(project: Project, range: Range, newId: () => string): void {
  const length = range.end - range.start;
  const lanes = project.lanes.filter((l) => !l.locked);
  for (const lane of lanes)
    for (const clip of lane.clips) if (clip.start >= range.end) clip.start -= length;
  orderLanes(lanes);
  const pull = (time: Ticks) => (time <= range.start ? time : Math.max(range.start, time - length));
  mapBeside(project, pull);
  mapMarkers(project, pull);
  partLinks(project, range.start, relinker(newId));
}

/** The gap of a lane at an instant, if there is one before a later clip. */
export function gapAt(lane: Lane, time: Ticks): Range | null {
  let start = 0;
  for (const clip of lane.clips) {
    if (time < clip.start) return time >= start ? { start, end: clip.start } : null;
    start = clipEnd(clip);
  }
  return null;
}

/** Whether nothing stands on any unlocked lane in a stretch of time. */
const isEmpty = (project: Project, range: Range) =>
  project.lanes.every((l) => l.locked || l.clips.every((c) => !overlaps(rangeOf(c), range)));

/**
 * Closes the gap of a lane at an instant. Where every unlocked lane is empty the whole
 * timeline closes up; otherwise only this lane's later clips, with what is linked to them, move.
 *
 * @throws EditError when there is no gap, or linked clips have no room to follow.
 */
export function closeGap(project: Project, laneId: string, time: Ticks, newId: () => string): void {
  const lane = unlockedLane(project, laneId);
  const gap = gapAt(lane, time);
  if (!gap) throw new EditError('There is no gap under the playhead on this lane.');
  if (isEmpty(project, gap)) return rippleDelete(project, gap, newId);
  const length = gap.end - gap.start;
  const moving = new Set(
    withLinked(
      project,
      lane.clips.filter((c) => c.start >= gap.end).map((c) => c.id),
    ).map((f) => f.clip.id),
  );
  for (const each of project.lanes) {
    let end = 0;
    for (const clip of each.clips) {
      const start = moving.has(clip.id) ? clip.start - length : clip.start;
      if (start < end)
        throw new EditError(
          `Linked clips on the lane ${each.name} have no room to follow. Unlink them, or make room there.`,
        );
      end = start + clip.duration;
    }
  }
  for (const each of project.lanes)
    for (const clip of each.clips) if (moving.has(clip.id)) clip.start -= length;
}

/**
 * Closes every stretch in which nothing stands on any unlocked lane.
 * @throws EditError when there is none
 */
export function closeAllGaps(project: Project, newId: () => string): void {
  const taken = project.lanes
    .filter((l) => !l.locked)
    .flatMap((l) => l.clips.map(rangeOf))
    .sort((a, b) => a.start - b.start);
  const gaps: Range[] = [];
  let end = 0;
  for (const range of taken) {
    if (range.start > end) gaps.push({ start: end, end: range.start });
    end = Math.max(end, range.end);
  }
  if (!gaps.length) throw new EditError('There is no gap that goes through all unlocked lanes.');
  for (const gap of gaps.reverse()) rippleDelete(project, gap, newId);
}
