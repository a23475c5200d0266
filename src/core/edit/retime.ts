import { clipEnd, SPEED_LIMITS, sourceTime } from '../project/clip-time';
import { createClip } from '../project/create';
import type { Clip, Lane, Project } from '../project/model';
import { clipAt, isPictureLane } from '../project/query';
import type { Sources } from '../project/sources';
import { overlaps, type Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { mapBeside, mapMarkers, mapOfFootage } from './beside';
import { EditError } from './error';
import { linkedClips, orderLanes, unlockedClip, type Found } from './lookup';
import { relinker } from './pieces';
import { clearRange } from './range';
import { partLinks, rippleInsert } from './ripple';

/** What follows a clip whose length changes: it moves along, or stays. */
export type Follow = 'move' | 'stay';

/** Steps of a speed in one: it is kept in thousandths. */
export const SPEED_STEP = 1000;

/** A speed as the document has it: in thousandths, within the limits. */
export const roundSpeed = (speed: number): number =>
  Math.min(SPEED_LIMITS[1], Math.max(SPEED_LIMITS[0], Math.round(speed * SPEED_STEP) / SPEED_STEP));

/**
 * Whether a clip of another recording stands in a stretch on a lane that would have to move; music
 * plays on under everything.
 */
export const othersIn = (
  project: Project,
  group: ReadonlySet<string>,
  range: Range,
): Lane | undefined =>
  project.lanes.find(
    (lane) =>
      !lane.locked &&
      lane.kind !== 'music' &&
      lane.clips.some(
        (c) =>
          !group.has(c.id) &&
          c.start < range.end &&
          overlaps({ start: c.start, end: clipEnd(c) }, range),
      ),
  );

/**
 * Whether what follows a clip can move along when the clip gets shorter: nothing else may stand in
 * the time that goes.
 */
export function canFollow(project: Project, id: string, speed: number): boolean {
  const group = linkedClips(project, id);
  const start = Math.min(...group.map((f) => f.clip.start));
  const end = Math.max(...group.map((f) => clipEnd(f.clip)));
  const length = ((end - start) * unlockedClip(project, id).clip.speed) / speed;
  return (
    length >= end - start ||
    !othersIn(project, new Set(group.map((f) => f.clip.id)), { start: start + length, end })
  );
}

/**
 * Plays a clip, and those linked to it, faster or slower; they stay in step. Callouts and framings
 * of the footage stay with what they show.
 *
 * @param speed footage time for one unit of timeline, 0.1 to 16, kept in thousandths
 * @param frame length of a frame in ticks: lengths are whole frames
 * @throws EditError when a clip would be shorter than a frame, has no room, or what follows can't
 * move
 */
export function setSpeed(
  project: Project,
  id: string,
  speed: number,
  follow: Follow,
  frame: Ticks,
  newId: () => string,
): void {
  const { clip } = unlockedClip(project, id);
  if (!(speed >= SPEED_LIMITS[0] && speed <= SPEED_LIMITS[1]))
    throw new EditError('A speed lies between 0.1× and 16×.');
  if (clip.speed === 0)
    throw new EditError('A frozen picture has no speed. Change its length instead.');
  const group = linkedClips(project, id);
  retime(project, group, roundSpeed(speed), follow, frame, newId);
}

/**
 * Gives linked clips a speed, with whole frames as lengths and all in step to the tick, and moves
 * what stands beside them.
 * @throws EditError as `setSpeed`
 */
export function retime(
  project: Project,
  group: readonly Found[],
  speed: number,
  follow: Follow,
  frame: Ticks,
  newId: () => string,
): void {
  const first = group.reduce((a, b) => (b.clip.start < a.clip.start ? b : a)).clip;
  const anchor = { ...first };
  const before: Range = {
    start: anchor.start,
    end: Math.max(...group.map((f) => clipEnd(f.clip))),
  };
  const factor = anchor.speed / speed;
  const later = (time: Ticks) =>
    anchor.start + Math.ceil(((time - anchor.start) * factor) / frame - 1e-6) * frame;
  const earlier = (time: Ticks) =>
    anchor.start + Math.floor(((time - anchor.start) * factor) / frame + 1e-6) * frame;
  const planned = group.map(({ clip }) => {
    const start = later(clip.start);
    const duration = earlier(clipEnd(clip)) - start;
    if (duration < frame)
      throw new EditError(
        'At this speed a clip would be shorter than one frame. Choose a slower speed, or remove it instead.',
      );
    // All keep their distance in footage time, to the tick.
    const source =
      clip.source - sourceTime(anchor, clip.start) + sourceTime({ ...anchor, speed }, start);
    return { clip, start, duration, source };
  });
  const end = Math.max(...planned.map((p) => p.start + p.duration));
  const by = end - before.end;
  const ids = new Set(group.map((f) => f.clip.id));
  if (follow === 'move' && by < 0) {
    const other = othersIn(project, ids, { start: end, end: before.end });
    if (other)
      throw new EditError(
        `${other.name} goes on in the time that would be closed. Let what follows stay where it is, or lock ${other.name}.`,
      );
  }
  for (const { clip, ...times } of planned) Object.assign(clip, times, { speed });
  const moves = follow === 'move' ? by : 0;
  if (moves)
    for (const lane of project.lanes)
      if (!lane.locked)
        for (const clip of lane.clips)
          if (!ids.has(clip.id) && clip.start >= before.end) clip.start += moves;
  orderLanes(group.map((f) => f.lane));
  if (moves) orderLanes(project.lanes.filter((l) => !l.locked));
  const map = (time: Ticks) => {
    if (time <= before.start) return time;
    if (time < before.end)
      return Math.min(end, before.start + Math.round((time - before.start) * factor));
    return follow === 'move' ? time + by : Math.max(time, Math.min(end, time + by));
  };
  if (follow === 'move') {
    mapBeside(project, map);
    mapMarkers(project, map);
    partLinks(project, end, relinker(newId));
  } else mapOfFootage(project, new Set(group.map((f) => f.clip.footageId)), map);
}

/** A still picture of a clip at an instant, for a stretch of the timeline. */
export const frozen = (clip: Clip, at: Ticks, range: Range, id: string, last: Ticks): Clip =>
  createClip({
    id,
    footageId: clip.footageId,
    start: range.start,
    duration: range.end - range.start,
    source: Math.min(sourceTime(clip, at), last),
    speed: 0,
    link: null,
    group: clip.group,
  });

/** Footage time of the last frame of a clip's recording; without limit for a still. */
export const lastFrame = (sources: Sources, clip: Clip, frame: Ticks) => {
  const footage = sources.footage[clip.footageId];
  return footage && footage.kind !== 'image' ? Math.max(0, footage.duration - frame) : Infinity;
};

/**
 * Holds the whole picture at an instant: everything after waits, and all unlocked picture lanes
 * show their frame meanwhile.
 *
 * @returns ids of the frozen clips
 * @throws EditError when there is no picture
 */
export function freezeAll(
  project: Project,
  sources: Sources,
  time: Ticks,
  length: Ticks,
  frame: Ticks,
  newId: () => string,
): string[] {
  const shown = project.lanes.flatMap((lane) => {
    const clip = lane.locked || !isPictureLane(lane) ? null : clipAt(lane, time);
    return clip ? [{ laneId: lane.id, clip: { ...clip } }] : [];
  });
  if (!shown.length)
    throw new EditError('There is no picture under the playhead on an unlocked lane.');
  rippleInsert(project, time, length, newId);
  return shown.map(({ laneId, clip }) => {
    const lane = project.lanes.find((l) => l.id === laneId)!;
    const still = frozen(
      clip,
      time,
      { start: time, end: time + length },
      newId(),
      lastFrame(sources, clip, frame),
    );
    lane.clips.push(still);
    orderLanes([lane]);
    return still.id;
  });
}

/**
 * Holds one clip at an instant, over what follows on its lane; sound and other lanes go on.
 * @returns id of the frozen clip
 */
export function freezeOver(
  project: Project,
  sources: Sources,
  id: string,
  time: Ticks,
  length: Ticks,
  frame: Ticks,
  newId: () => string,
): string {
  const { clip, lane } = unlockedClip(project, id);
  if (!isPictureLane(lane))
    throw new EditError('Only a picture can be frozen. Select a clip of a picture lane.');
  if (time < clip.start || time >= clipEnd(clip))
    throw new EditError('Put the playhead on the frame of the clip that is to be held.');
  const still = frozen(
    clip,
    time,
    { start: time, end: time + length },
    newId(),
    lastFrame(sources, clip, frame),
  );
  clearRange([lane], { start: time, end: time + length }, newId);
  lane.clips.push(still);
  orderLanes([lane]);
  return still.id;
}
