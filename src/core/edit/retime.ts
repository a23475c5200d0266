import { clipEnd, SPEED_LIMITS, sourceTime, timelineTime } from '../project/clip-time';
import { createClip } from '../project/create';
import type { Clip, Lane, Project } from '../project/model';
import { clipAt, isPictureLane } from '../project/query';
import type { Sources } from '../project/sources';
import { findStillness } from '../telemetry/stillness';
import { overlaps, type Range } from '../time/ranges';
import { secondsToTicks, ticksToSeconds, type Ticks } from '../time/ticks';
import { mapBeside, mapMarkers } from './beside';
import { EditError } from './error';
import { linkedClips, settleLanes, unlockedClip, type Found } from './lookup';
import { partOf, relinker } from './pieces';
import { clearRange } from './range';
import { closeUp, partLinks, rippleInsert } from './ripple';

/** What follows a clip whose length changes: it moves along, or stays. */
export type Follow = 'move' | 'stay';

const SPEED_STEP = 1000;

/** A speed as the document has it: in thousandths, within the limits. */
export const roundSpeed = (speed: number): number =>
  Math.min(SPEED_LIMITS[1], Math.max(SPEED_LIMITS[0], Math.round(speed * SPEED_STEP) / SPEED_STEP));

/** Whether a clip of another recording stands in a stretch on a lane that would have to move; music plays on under everything. */
const othersIn = (project: Project, group: ReadonlySet<string>, range: Range): Lane | undefined =>
  project.lanes.find(
    (lane) =>
      !lane.locked &&
      lane.kind !== 'music' &&
      lane.clips.some((c) => !group.has(c.id) && c.start < range.end && overlaps({ start: c.start, end: clipEnd(c) }, range)),
  );

/** Whether what follows a clip can move along when the clip gets shorter: nothing else may stand in the time that goes. */
export function canFollow(project: Project, id: string, speed: number): boolean {
  const group = linkedClips(project, id);
  const start = Math.min(...group.map((f) => f.clip.start));
  const end = Math.max(...group.map((f) => clipEnd(f.clip)));
  const length = ((end - start) * unlockedClip(project, id).clip.speed) / speed;
  return length >= end - start || !othersIn(project, new Set(group.map((f) => f.clip.id)), { start: start + length, end });
}

/**
 * Plays a clip, and those linked to it, faster or slower; they stay in step. Callouts and framings of the footage stay with what
 * they show.
 *
 * @param speed footage time for one unit of timeline, 0.1 to 16, kept in thousandths
 * @param frame length of a frame in ticks: lengths are whole frames
 * @throws EditError when a clip would be shorter than a frame, has no room, or what follows can't move
 */
export function setSpeed(project: Project, id: string, speed: number, follow: Follow, frame: Ticks, newId: () => string): void {
  const { clip } = unlockedClip(project, id);
  if (!(speed >= SPEED_LIMITS[0] && speed <= SPEED_LIMITS[1])) throw new EditError('A speed lies between 0.1× and 16×.');
  if (clip.speed === 0) throw new EditError('A frozen picture has no speed. Change its length instead.');
  const group = linkedClips(project, id);
  retime(project, group, roundSpeed(speed), follow, frame, newId);
}

function retime(project: Project, group: readonly Found[], speed: number, follow: Follow, frame: Ticks, newId: () => string): void {
  const first = group.reduce((a, b) => (b.clip.start < a.clip.start ? b : a)).clip;
  const anchor = { ...first };
  const before: Range = { start: anchor.start, end: Math.max(...group.map((f) => clipEnd(f.clip))) };
  const factor = anchor.speed / speed;
  const later = (time: Ticks) => anchor.start + Math.ceil(((time - anchor.start) * factor) / frame - 1e-6) * frame;
  const earlier = (time: Ticks) => anchor.start + Math.floor(((time - anchor.start) * factor) / frame + 1e-6) * frame;
  const planned = group.map(({ clip }) => {
    const start = later(clip.start);
    const duration = earlier(clipEnd(clip)) - start;
    if (duration < frame)
      throw new EditError('At this speed a clip would be shorter than one frame. Choose a slower speed, or remove it instead.');
    // All keep their distance in footage time, to the tick.
    const source = clip.source - sourceTime(anchor, clip.start) + sourceTime({ ...anchor, speed }, start);
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
      if (!lane.locked) for (const clip of lane.clips) if (!ids.has(clip.id) && clip.start >= before.end) clip.start += moves;
  settleLanes(group.map((f) => f.lane));
  if (moves) settleLanes(project.lanes.filter((l) => !l.locked));
  const map = (time: Ticks) => {
    if (time <= before.start) return time;
    if (time < before.end) return Math.min(end, before.start + Math.round((time - before.start) * factor));
    return follow === 'move' ? time + by : Math.max(time, Math.min(end, time + by));
  };
  if (follow === 'move') {
    mapBeside(project, map);
    mapMarkers(project, map);
    partLinks(project, end, relinker(newId));
  } else mapOfFootage(project, new Set(group.map((f) => f.clip.footageId)), map);
}

/** Moves only what is anchored in certain footage. */
function mapOfFootage(project: Project, footage: ReadonlySet<string>, map: (time: Ticks) => Ticks): void {
  for (const list of [project.callouts, project.framings])
    for (const span of list)
      if (footage.has(span.footageId)) {
        const end = map(span.end);
        span.start = map(span.start);
        span.end = Math.max(end, span.start + 1);
      }
  let last = 0;
  for (const framing of project.framings.sort((a, b) => a.start - b.start)) {
    framing.start = Math.max(framing.start, last);
    framing.end = Math.max(framing.end, framing.start + 1);
    last = framing.end;
    const half = Math.floor((framing.end - framing.start) / 2);
    if (framing.rampIn + framing.rampOut > framing.end - framing.start)
      Object.assign(framing, { rampIn: Math.min(framing.rampIn, half), rampOut: Math.min(framing.rampOut, half) });
  }
  project.callouts.sort((a, b) => a.start - b.start);
}

/** A still picture of a clip at an instant, for a stretch of the timeline. */
const frozen = (clip: Clip, at: Ticks, range: Range, id: string, last: Ticks): Clip =>
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

const lastFrame = (sources: Sources, clip: Clip, frame: Ticks) => {
  const footage = sources.footage[clip.footageId];
  return footage && footage.kind !== 'image' ? Math.max(0, footage.duration - frame) : Infinity;
};

/**
 * Holds the whole picture at an instant: everything after waits, and all unlocked picture lanes show their frame meanwhile.
 *
 * @returns ids of the frozen clips
 * @throws EditError when there is no picture
 */
export function freezeAll(project: Project, sources: Sources, time: Ticks, length: Ticks, frame: Ticks, newId: () => string): string[] {
  const shown = project.lanes.flatMap((lane) => {
    const clip = lane.locked || !isPictureLane(lane) ? null : clipAt(lane, time);
    return clip ? [{ laneId: lane.id, clip: { ...clip } }] : [];
  });
  if (!shown.length) throw new EditError('There is no picture under the playhead on an unlocked lane.');
  rippleInsert(project, time, length, newId);
  return shown.map(({ laneId, clip }) => {
    const lane = project.lanes.find((l) => l.id === laneId)!;
    const still = frozen(clip, time, { start: time, end: time + length }, newId(), lastFrame(sources, clip, frame));
    lane.clips.push(still);
    settleLanes([lane]);
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
  if (!isPictureLane(lane)) throw new EditError('Only a picture can be frozen. Select a clip of a picture lane.');
  if (time < clip.start || time >= clipEnd(clip)) throw new EditError('Put the playhead on the frame of the clip that is to be held.');
  const still = frozen(clip, time, { start: time, end: time + length }, newId(), lastFrame(sources, clip, frame));
  clearRange([lane], { start: time, end: time + length }, newId);
  lane.clips.push(still);
  settleLanes([lane]);
  return still.id;
}

export const PACE_WAYS = ['stretch', 'cut', 'freeze'] as const;
/** How a screen stretch is made as long as its narration: its speed, its still stretches cut, or its end frozen. */
export type PaceWay = (typeof PACE_WAYS)[number];

/** The narration that a clip of the screen is to last as long as: from its start to the end of the voice that begins during it. Null for none. */
export function narrationOf(project: Project, id: string): Range | null {
  const { clip } = unlockedClip(project, id);
  let end = clip.start;
  for (const lane of project.lanes)
    if (lane.kind === 'voice')
      for (const voice of lane.clips)
        // One that runs on from before counts only if it ends in here.
        if (voice.start < clipEnd(clip) && clipEnd(voice) > clip.start && (voice.start >= clip.start || clipEnd(voice) <= clipEnd(clip)))
          end = Math.max(end, clipEnd(voice));
  return end > clip.start ? { start: clip.start, end } : null;
}

/** A still stretch keeps at least this much, so that cuts are not hectic. */
const KEEP = secondsToTicks(0.3);
const STILL_LEAST_MS = 700;

/**
 * Makes a clip of the screen last as long as its narration; where nothing is left in the time after it, that time closes.
 * @throws EditError with what would help, when the way does not lead there
 */
export function paceToVoice(project: Project, sources: Sources, id: string, way: PaceWay, frame: Ticks, newId: () => string): void {
  const { clip, lane } = unlockedClip(project, id);
  if (!isPictureLane(lane)) throw new EditError('Select the clip of the screen that is to follow the voice.');
  const voice = narrationOf(project, id);
  if (!voice) throw new EditError('There is no narration beside this clip. Put it under the words it belongs to, or record them first.');
  const wanted = Math.max(frame, Math.round((voice.end - voice.start) / frame) * frame);
  const surplus = clip.duration - wanted;
  if (Math.abs(surplus) < frame) throw new EditError('The clip is as long as its narration already.');
  const before = clipEnd(clip);
  if (linkedClips(project, id).some((f) => f.lane.kind === 'voice'))
    throw new EditError('This recording is linked to its own voice. Unlink them first to pace the picture by itself.');
  if (way === 'stretch') stretchTo(project, id, wanted, frame, newId);
  else if (way === 'freeze') {
    if (surplus > 0)
      throw new EditError('The clip is longer than its narration, so its end need not be held. Stretch it, or cut its stillness.');
    const last = clipEnd(clip) - frame;
    const still = frozen(clip, last, { start: clipEnd(clip), end: clip.start + wanted }, newId(), lastFrame(sources, clip, frame));
    lane.clips.push(still);
    settleLanes([lane]);
  } else cutStillness(project, sources, id, surplus, frame, newId);
  const end = voice.start + wanted;
  const free = { start: Math.max(end, voice.end), end: before };
  if (free.end > free.start && !othersIn(project, new Set(), free)) closeUp(project, free, newId);
}

function stretchTo(project: Project, id: string, wanted: Ticks, frame: Ticks, newId: () => string): void {
  const { clip } = unlockedClip(project, id);
  // Rounded down, so that the footage never runs out before the words do.
  const speed = Math.floor(((clip.duration * clip.speed) / wanted) * SPEED_STEP) / SPEED_STEP;
  if (speed < SPEED_LIMITS[0] || speed > SPEED_LIMITS[1])
    throw new EditError('That would need a speed below 0.1× or above 16×. Trim the clip, or hold its end instead.');
  retime(project, linkedClips(project, id), speed, 'stay', frame, newId);
  // The rounding may leave it longer by less than a thousandth.
  for (const { clip: each } of linkedClips(project, id)) if (each.start === clip.start && each.duration > wanted) each.duration = wanted;
}

/** Shortens a clip, and what is linked to it, by taking time out of its still stretches, most of the longest. */
function cutStillness(project: Project, sources: Sources, id: string, surplus: Ticks, frame: Ticks, newId: () => string): void {
  const { clip } = unlockedClip(project, id);
  if (surplus < 0) throw new EditError('The clip is shorter than its narration, so there is nothing to cut. Stretch it, or hold its end.');
  const track = sources.pointers[clip.footageId];
  if (!track)
    throw new EditError(
      'Without a pointer track it is not known where nothing happens. Attach one in Footage, or stretch the clip instead.',
    );
  const ms = (ticks: Ticks) => ticksToSeconds(ticks) * 1000;
  const from = ms(clip.source);
  const stills = findStillness(track, from, from + ms(clip.duration) * clip.speed, STILL_LEAST_MS).map((s) => {
    const start = Math.ceil(timelineTime(clip, secondsToTicks(s.from / 1000)) / frame) * frame;
    const end = Math.floor(timelineTime(clip, secondsToTicks(s.to / 1000)) / frame) * frame;
    return { start, room: Math.max(0, Math.floor((end - start - KEEP) / frame) * frame) };
  });
  const room = stills.reduce((sum, s) => sum + s.room, 0);
  if (room < surplus)
    throw new EditError(
      `Only ${ticksToSeconds(room).toFixed(1)} s of this clip are still, and ${ticksToSeconds(surplus).toFixed(1)} s would have to go. Stretch it, or trim it by hand.`,
    );
  let left = surplus;
  const cuts = stills
    .sort((a, b) => b.room - a.room)
    .flatMap(({ start, room: most }): Range[] => {
      const length = Math.min(most, left);
      left -= length;
      const from = start + Math.floor(KEEP / 2 / frame) * frame;
      return length >= frame ? [{ start: from, end: from + length }] : [];
    })
    .sort((a, b) => a.start - b.start);
  const before = (time: Ticks) => cuts.reduce((sum, c) => sum + Math.max(0, Math.min(time, c.end) - c.start), 0);
  const relinks = cuts.map(() => relinker(newId));
  const end = clipEnd(clip);
  for (const { lane, clip: each } of linkedClips(project, id)) {
    const kept = [each.start, ...cuts.flatMap((c) => [c.start, c.end]), Math.max(end, clipEnd(each))];
    const parts = Array.from({ length: cuts.length + 1 }, (_, n) => {
      const part = partOf(each, { start: kept[n * 2]!, end: kept[n * 2 + 1]! }, n ? newId() : each.id);
      return part && { ...part, start: part.start - before(part.start), link: n ? relinks[n - 1]!(each.link) : each.link };
    });
    lane.clips.splice(lane.clips.indexOf(each), 1, ...parts.filter((part) => part !== null));
  }
  mapOfFootage(project, new Set([clip.footageId]), (time) => (time >= end ? time : time - before(time)));
}
