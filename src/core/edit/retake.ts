import { clipEnd } from '../project/clip-time';
import { createClip, createLane } from '../project/create';
import type { Lane, Project } from '../project/model';
import { overlaps, type Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { EditError } from './error';
import { orderLanes } from './lookup';
import { partOf } from './pieces';
import { clearRange } from './range';

const OLD_WORDS = 'Old words';

/**
 * The voice lane whose words a retake of a range replaces: the first unlocked one that speaks
 * there, else the first unlocked one.
 */
export function retakeLane(project: Project, range: Range): Lane {
  const lanes = project.lanes.filter(
    (l) => l.kind === 'voice' && !l.locked && !(l.off && l.name.startsWith(OLD_WORDS)),
  );
  const speaking = lanes.find((l) =>
    l.clips.some((c) => overlaps({ start: c.start, end: clipEnd(c) }, range)),
  );
  const lane = speaking ?? lanes[0];
  if (!lane) throw new EditError('All voice lanes are locked. Unlock one to record onto it.');
  return lane;
}

/**
 * A muted lane with room in a range, for words that were replaced; a new one below the voice lanes
 * where there is none.
 */
function laneForOldWords(project: Project, range: Range, newId: () => string): Lane {
  const free = project.lanes.find(
    (l) =>
      l.kind === 'voice' &&
      l.off &&
      !l.locked &&
      l.name.startsWith(OLD_WORDS) &&
      l.clips.every((c) => !overlaps({ start: c.start, end: clipEnd(c) }, range)),
  );
  if (free) return free;
  const count = project.lanes.filter((l) => l.name.startsWith(OLD_WORDS)).length;
  const lane: Lane = {
    ...createLane('voice', newId(), count ? `${OLD_WORDS} ${count + 1}` : OLD_WORDS),
    off: true,
  };
  project.lanes.splice(project.lanes.findLastIndex((l) => l.kind === 'voice') + 1, 0, lane);
  return lane;
}

/**
 * Puts words that were recorded again into a range. Those that stood there are kept on a muted lane
 * at the same place, from where they can be moved back.
 *
 * @param source footage time of the recording that belongs to the range's start; below 0 when it
 * began late
 * @param available length of the recording, in footage ticks
 * @returns id of the new clip
 * @throws EditError when nothing was recorded in the range, or all voice lanes are locked
 */
export function placeRetake(
  project: Project,
  range: Range,
  recording: { readonly footageId: string; readonly source: Ticks; readonly available: Ticks },
  frame: Ticks,
  newId: () => string,
): string {
  const lane = retakeLane(project, range);
  const late = Math.max(0, Math.ceil(-recording.source / frame) * frame);
  const start = range.start + late;
  const source = recording.source + late;
  const duration =
    Math.floor(Math.min(range.end - start, recording.available - source) / frame) * frame;
  if (duration < frame)
    throw new EditError(
      'Nothing was recorded in the range. Try again, and wait until the playhead has passed its end.',
    );
  const old = lane.clips.flatMap((clip) => partOf(clip, range, newId()) ?? []);
  if (old.length) {
    const kept = laneForOldWords(project, range, newId);
    kept.clips.push(...old.map((clip) => ({ ...clip, link: null, group: null })));
    orderLanes([kept]);
  }
  clearRange([lane], range, newId);
  const clip = createClip({
    id: newId(),
    footageId: recording.footageId,
    start,
    duration,
    source,
    link: null,
  });
  lane.clips.push(clip);
  orderLanes([lane]);
  return clip.id;
}
