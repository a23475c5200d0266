import { clipEnd, SPEED_LIMITS, timelineTime } from '../project/clip-time';
import type { Project } from '../project/model';
import { isPictureLane } from '../project/query';
import type { Sources } from '../project/sources';
import { trackOf } from '../project/track-of';
import { findStillness } from '../telemetry/stillness';
import type { Range } from '../time/ranges';
import { secondsToTicks, ticksToSeconds, type Ticks } from '../time/ticks';
import { mapOfFootage } from './beside';
import { EditError } from './error';
import { linkedClips, orderLanes, unlockedClip } from './lookup';
import { partOf, relinker } from './pieces';
import { frozen, lastFrame, othersIn, retime, SPEED_STEP } from './retime';
import { closeUp } from './ripple';

export const PACE_WAYS = ['stretch', 'cut', 'freeze'] as const;
/**
 * How a screen stretch is made as long as its narration: its speed, its still stretches cut, or its
 * end frozen.
 */
export type PaceWay = (typeof PACE_WAYS)[number];

/**
 * The narration that a clip of the screen is to last as long as: from its start to the end of the
 * voice that begins during it. Null for none.
 */
export function narrationOf(project: Project, id: string): Range | null {
  const { clip } = unlockedClip(project, id);
  let end = clip.start;
  for (const lane of project.lanes)
    if (lane.kind === 'voice')
      for (const voice of lane.clips)
        // One that runs on from before counts only if it ends in here.
        if (
          voice.start < clipEnd(clip) &&
          clipEnd(voice) > clip.start &&
          (voice.start >= clip.start || clipEnd(voice) <= clipEnd(clip))
        )
          end = Math.max(end, clipEnd(voice));
  return end > clip.start ? { start: clip.start, end } : null;
}

/** A still stretch keeps at least this much, so that cuts are not hectic. */
const KEEP = secondsToTicks(0.3);
const STILL_LEAST_MS = 700;

/**
 * Makes a clip of the screen last as long as its narration; where nothing is left in the time after
 * it, that time closes.
 * @throws EditError with what would help, when the way does not lead there
 */
export function paceToVoice(
  project: Project,
  sources: Sources,
  id: string,
  way: PaceWay,
  frame: Ticks,
  newId: () => string,
): void {
  const { clip, lane } = unlockedClip(project, id);
  if (!isPictureLane(lane))
    throw new EditError('Select the clip of the screen that is to follow the voice.');
  const voice = narrationOf(project, id);
  if (!voice)
    throw new EditError(
      'There is no narration beside this clip. Put it under the words it belongs to, or record them first.',
    );
  const wanted = Math.max(frame, Math.round((voice.end - voice.start) / frame) * frame);
  const surplus = clip.duration - wanted;
  if (Math.abs(surplus) < frame)
    throw new EditError('The clip is as long as its narration already.');
  const before = clipEnd(clip);
  if (linkedClips(project, id).some((f) => f.lane.kind === 'voice'))
    throw new EditError(
      'This recording is linked to its own voice. Unlink them first to pace the picture by itself.',
    );
  if (way === 'stretch') stretchTo(project, id, wanted, frame, newId);
  else if (way === 'freeze') {
    if (surplus > 0)
      throw new EditError(
        'The clip is longer than its narration, so its end need not be held. Stretch it, or cut its stillness.',
      );
    const last = clipEnd(clip) - frame;
    const still = frozen(
      clip,
      last,
      { start: clipEnd(clip), end: clip.start + wanted },
      newId(),
      lastFrame(sources, clip, frame),
    );
    lane.clips.push(still);
    orderLanes([lane]);
  } else cutStillness(project, sources, id, surplus, frame, newId);
  const end = voice.start + wanted;
  const free = { start: Math.max(end, voice.end), end: before };
  if (free.end > free.start && !othersIn(project, new Set(), free)) closeUp(project, free, newId);
}

function stretchTo(
  project: Project,
  id: string,
  wanted: Ticks,
  frame: Ticks,
  newId: () => string,
): void {
  const { clip } = unlockedClip(project, id);
  // Rounded down, so that the footage never runs out before the words do.
  const speed = Math.floor(((clip.duration * clip.speed) / wanted) * SPEED_STEP) / SPEED_STEP;
  if (speed < SPEED_LIMITS[0] || speed > SPEED_LIMITS[1])
    throw new EditError(
      'That would need a speed below 0.1× or above 16×. Trim the clip, or hold its end instead.',
    );
  retime(project, linkedClips(project, id), speed, 'stay', frame, newId);
  // The rounding may leave it longer by less than a thousandth.
  for (const { clip: each } of linkedClips(project, id))
    if (each.start === clip.start && each.duration > wanted) each.duration = wanted;
}

/**
 * Shortens a clip, and what is linked to it, by taking time out of its still stretches, most of the
 * longest.
 */
function cutStillness(
  project: Project,
  sources: Sources,
  id: string,
  surplus: Ticks,
  frame: Ticks,
  newId: () => string,
): void {
  const { clip } = unlockedClip(project, id);
  if (surplus < 0)
    throw new EditError(
      'The clip is shorter than its narration, so there is nothing to cut. Stretch it, or hold its end.',
    );
  const track = trackOf(project, sources, clip.footageId);
  if (!track)
    throw new EditError(
      'Without a pointer track it is not known where nothing happens. Attach one in Footage, or stretch the clip instead.',
    );
  const ms = (ticks: Ticks) => ticksToSeconds(ticks) * 1000;
  const from = ms(clip.source);
  const stills = findStillness(
    track,
    from,
    from + ms(clip.duration) * clip.speed,
    STILL_LEAST_MS,
  ).map((s) => {
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
  const before = (time: Ticks) =>
    cuts.reduce((sum, c) => sum + Math.max(0, Math.min(time, c.end) - c.start), 0);
  const relinks = cuts.map(() => relinker(newId));
  const end = clipEnd(clip);
  for (const { lane, clip: each } of linkedClips(project, id)) {
    const kept = [
      each.start,
      ...cuts.flatMap((c) => [c.start, c.end]),
      Math.max(end, clipEnd(each)),
    ];
    const parts = Array.from({ length: cuts.length + 1 }, (_, n) => {
      const part = partOf(
        each,
        { start: kept[n * 2]!, end: kept[n * 2 + 1]! },
        n ? newId() : each.id,
      );
      return (
        part && {
          ...part,
          start: part.start - before(part.start),
          link: n ? relinks[n - 1]!(each.link) : each.link,
        }
      );
    });
    lane.clips.splice(lane.clips.indexOf(each), 1, ...parts.filter((part) => part !== null));
  }
  mapOfFootage(project, new Set([clip.footageId]), (time) =>
    time >= end ? time : time - before(time),
  );
}
