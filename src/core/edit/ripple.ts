import type { Clip, Lane, Project, Step } from '../project/model';
import { overlaps, type Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { cutClip } from './clips';
import { EditError } from './error';
import { linkedClips, unlockedClip } from './lookup';

/**
 * Removes a stretch of time from every unlocked lane and from all that is
 * timed beside them, and closes it. What began after it keeps its distance to everything
 * else that began after it.
 */
export function rippleDelete(project: Project, range: Range, newId: () => string): void {
  const length = range.end - range.start;
  if (length <= 0) throw new EditError('There is nothing to remove: the stretch is empty.');
  // Right parts of linked clips are linked to each other again, not to the left parts.
  const links = new Map<string, string>();
  const relink = (link: string | null) => {
    if (!link) return null;
    if (!links.has(link)) links.set(link, newId());
    return links.get(link)!;
  };
  for (const lane of project.lanes) if (!lane.locked) lane.clips = lane.clips.flatMap((clip) => withoutRange(clip, range, newId, relink));
  project.framings = project.framings.flatMap((f) => {
    const span = shrink(f, range);
    if (!span) return [];
    const most = Math.floor((span.end - span.start) / 2);
    return [{ ...f, ...span, rampIn: Math.min(f.rampIn, most), rampOut: Math.min(f.rampOut, most) }];
  });
  const spans = <S extends Range>(list: S[]): S[] =>
    list.flatMap((s) => {
      const span = shrink(s, range);
      return span ? [{ ...s, ...span }] : [];
    });
  project.layouts = spans(project.layouts);
  project.pointer = spans(project.pointer);
  project.callouts = spans(project.callouts);
  project.markers = project.markers
    .filter((m) => m.time < range.start || m.time >= range.end)
    .map((m) => ({ ...m, time: pull(m.time, range) }));
  project.steps = stepsWithout(project.steps, range);
}

/** Removes clips, what is linked to them, and the time they took on every unlocked lane. */
export function rippleDeleteClips(project: Project, ids: readonly string[], newId: () => string): void {
  const ranges = ids
    .map((id) => unlockedClip(project, id).clip)
    .map((clip): Range => ({ start: clip.start, end: clip.start + clip.duration }))
    .sort((a, b) => b.start - a.start);
  // From the end, so that an earlier stretch is still where it was; overlapping ones are taken as one.
  const merged: Range[] = [];
  for (const range of ranges) {
    const last = merged[merged.length - 1];
    if (last && overlaps(last, { start: range.start, end: range.end + 1 }))
      merged[merged.length - 1] = { start: Math.min(last.start, range.start), end: Math.max(last.end, range.end) };
    else merged.push(range);
  }
  for (const range of merged) rippleDelete(project, range, newId);
}

function withoutRange(clip: Clip, range: Range, newId: () => string, relink: (link: string | null) => string | null): Clip[] {
  const length = range.end - range.start;
  const end = clip.start + clip.duration;
  if (end <= range.start) return [clip];
  if (clip.start >= range.end) return [{ ...clip, start: clip.start - length }];
  const parts: Clip[] = [];
  if (clip.start < range.start) parts.push({ ...clip, duration: range.start - clip.start });
  if (end > range.end) {
    const right = cutClip(clip, range.end, end, parts.length ? newId() : clip.id);
    parts.push({ ...right, start: range.start, link: parts.length ? relink(clip.link) : clip.link });
  }
  return parts;
}

/** Where a time goes when a range is taken out; times inside fall on its start. */
const pull = (time: Ticks, { start, end }: Range): Ticks => (time <= start ? time : Math.max(start, time - (end - start)));

function shrink(span: Range, range: Range): Range | null {
  const start = pull(span.start, range);
  const end = pull(span.end, range);
  return end > start ? { start, end } : null;
}

/** Steps keep their words; of several that fall on one instant the last keeps its place, the others are only planned again. */
function stepsWithout(steps: readonly Step[], range: Range): Step[] {
  const latest = new Map<Ticks, Ticks>();
  for (const { start } of steps) if (start !== null) latest.set(pull(start, range), Math.max(start, latest.get(pull(start, range)) ?? 0));
  return steps.map((step) => {
    if (step.start === null) return step;
    const start = pull(step.start, range);
    return { ...step, start: latest.get(start) === step.start ? start : null };
  });
}

/**
 * Makes room: everything on unlocked lanes that begins at an instant or later moves on, with all that is
 * timed beside it. Clips that run across it are split; music plays on through.
 *
 * @param length ticks, above 0
 */
export function rippleInsert(project: Project, at: Ticks, length: Ticks, newId: () => string): void {
  if (length <= 0) return;
  const links = new Map<string, string>();
  const relink = (link: string | null) => {
    if (!link) return null;
    if (!links.has(link)) links.set(link, newId());
    return links.get(link)!;
  };
  for (const lane of project.lanes) {
    if (lane.locked) continue;
    lane.clips = lane.clips.flatMap((clip) => {
      const end = clip.start + clip.duration;
      if (clip.start >= at) return [{ ...clip, start: clip.start + length }];
      if (end <= at || lane.kind === 'music') return [clip];
      const right = cutClip(clip, at, end, newId());
      return [
        { ...clip, duration: at - clip.start },
        { ...right, start: at + length, link: relink(clip.link) },
      ];
    });
    // Music that played on may now reach into what was moved behind it.
    lane.clips.forEach((clip, i) => {
      const next = lane.clips[i + 1];
      if (next) clip.duration = Math.min(clip.duration, next.start - clip.start);
    });
  }
  const push = <S extends Range>(list: S[]): S[] =>
    list.map((s) => ({ ...s, start: s.start >= at ? s.start + length : s.start, end: s.end > at ? s.end + length : s.end }));
  project.framings = push(project.framings);
  project.layouts = push(project.layouts);
  project.pointer = push(project.pointer);
  project.callouts = push(project.callouts);
  project.markers = project.markers.map((m) => (m.time >= at ? { ...m, time: m.time + length } : m));
  project.steps = project.steps.map((s) => (s.start !== null && s.start >= at ? { ...s, start: s.start + length } : s));
}

/** The gap of a lane at an instant, if there is one before a later clip. */
export function gapAt(lane: Lane, time: Ticks): Range | null {
  let start = 0;
  for (const clip of lane.clips) {
    if (time < clip.start) return time >= start ? { start, end: clip.start } : null;
    start = clip.start + clip.duration;
  }
  return null;
}

/**
 * Closes the gap of a lane at an instant. Where every unlocked lane is empty the whole
 * timeline closes up; otherwise only this lane's later clips, with what is linked to them, move.
 *
 * @throws EditError when there is no gap, or linked clips have no room to follow.
 */
export function closeGap(project: Project, laneId: string, time: Ticks, newId: () => string): void {
  const lane = project.lanes.find((l) => l.id === laneId);
  if (!lane || lane.locked) throw new EditError('The gap is on a locked lane. Unlock it first.');
  const gap = gapAt(lane, time);
  if (!gap) throw new EditError('There is no gap under the playhead on this lane.');
  const empty = project.lanes.every((l) => l.locked || l.clips.every((c) => !overlaps({ start: c.start, end: c.start + c.duration }, gap)));
  if (empty) return rippleDelete(project, gap, newId);
  const length = gap.end - gap.start;
  const later = lane.clips.filter((c) => c.start >= gap.end);
  const moving = new Set(later.flatMap((c) => linkedClips(project, c.id).map((f) => f.clip.id)));
  for (const each of project.lanes) {
    for (const clip of each.clips) {
      if (!moving.has(clip.id)) continue;
      const start = clip.start - length;
      if (start < 0 || each.clips.some((o) => !moving.has(o.id) && o.start < start + clip.duration && o.start + o.duration > start))
        throw new EditError(`Linked clips on the lane ${each.name} have no room to follow. Unlink them, or make room there.`);
    }
  }
  for (const each of project.lanes) for (const clip of each.clips) if (moving.has(clip.id)) clip.start -= length;
}
