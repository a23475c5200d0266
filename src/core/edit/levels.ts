import { clipEnd, sourceTime } from '../project/clip-time';
import { envelopeAt } from '../audio/envelope';
import type { Clip, Project } from '../project/model';
import { isPictureLane } from '../project/query';
import type { Sources } from '../project/sources';
import { createClip } from '../project/create';
import { overlaps, type Range } from '../time/ranges';
import { secondsToTicks, type Ticks } from '../time/ticks';
import { EditError } from './error';
import { linkedClips, orderLanes, unlockedClip } from './lookup';
import { lanesOf } from './range';

export const SILENCE_DB = -96;
/** Length of the slopes into and out of a silence. */
const SLOPE = secondsToTicks(0.01);

const sorted = (points: Clip['envelope']) => points.sort((a, b) => a[0] - b[0]);

/**
 * Sets a point of a clip's level at an instant of the timeline, in dB (-96 to 24); one that is
 * within `reach` ticks is moved instead.
 */
export function setLevelPoint(
  project: Project,
  id: string,
  time: Ticks,
  dB: number,
  reach: Ticks,
): void {
  const { clip } = unlockedClip(project, id);
  const at = sourceTime(clip, Math.min(Math.max(time, clip.start), clipEnd(clip)));
  const level = Math.min(24, Math.max(SILENCE_DB, dB));
  const near = clip.envelope.find(([t]) => Math.abs(t - at) <= reach * (clip.speed || 1));
  if (near) near[1] = level;
  else sorted(clip.envelope).push([at, level]);
  sorted(clip.envelope);
}

/**
 * Moves a point of a clip's level to another instant and level; it stays between its neighbours.
 */
export function moveLevelPoint(
  project: Project,
  id: string,
  index: number,
  time: Ticks,
  dB: number,
): void {
  const { clip } = unlockedClip(project, id);
  const point = clip.envelope[index];
  if (!point) throw new EditError('That point is no longer there.');
  const low = (clip.envelope[index - 1]?.[0] ?? -1) + 1;
  const high = (clip.envelope[index + 1]?.[0] ?? Infinity) - 1;
  point[0] = Math.min(high, Math.max(low, sourceTime(clip, time)));
  point[1] = Math.min(24, Math.max(SILENCE_DB, dB));
}

/** Removes a point of a clip's level. */
export function removeLevelPoint(project: Project, id: string, index: number): void {
  unlockedClip(project, id).clip.envelope.splice(index, 1);
}

/** Removes all points of a clip's level. */
export function clearLevelPoints(project: Project, id: string): void {
  unlockedClip(project, id).clip.envelope = [];
}

/** Sets the fades of a clip's sound, in ticks; together they are no longer than the clip. */
export function setFades(project: Project, id: string, fadeIn: Ticks, fadeOut: Ticks): void {
  const { clip } = unlockedClip(project, id);
  clip.fadeIn = Math.round(Math.min(Math.max(0, fadeIn), clip.duration));
  clip.fadeOut = Math.round(Math.min(Math.max(0, fadeOut), clip.duration - clip.fadeIn));
}

/**
 * Makes a range silent on the chosen lanes, or on all unlocked sound lanes; picture and everything
 * else stay. The levels can be pulled up again.
 *
 * @throws EditError when there is no sound in the range
 */
export function silenceRange(
  project: Project,
  range: Range,
  chosen: readonly string[] | null,
): void {
  const lanes = lanesOf(project, chosen).filter((l) => !isPictureLane(l));
  let any = false;
  for (const lane of lanes)
    for (const clip of lane.clips) {
      if (!clip.speed || !overlaps({ start: clip.start, end: clipEnd(clip) }, range)) continue;
      any = true;
      const from = sourceTime(clip, Math.max(range.start, clip.start));
      const to = sourceTime(clip, Math.min(range.end, clipEnd(clip)));
      const before = Math.max(0, from - SLOPE);
      const edges: Clip['envelope'] = [
        [before, envelopeAt(clip.envelope, before)],
        [from, SILENCE_DB],
        [to, SILENCE_DB],
        [to + SLOPE, envelopeAt(clip.envelope, to + SLOPE)],
      ];
      clip.envelope = sorted([
        ...clip.envelope.filter(([t]) => t < before || t > to + SLOPE),
        ...edges.filter(([t], i) => i === 0 || t > edges[i - 1]![0]),
      ]);
    }
  if (!any) throw new EditError('There is no sound in the range on these lanes.');
}

/**
 * Frees the sound of a recording from its picture, so that each can be cut by itself; where the
 * sound does not stand on the timeline, it is put there first.
 *
 * @throws EditError when the recording has no sound
 */
export function detachAudio(
  project: Project,
  sources: Sources,
  id: string,
  newId: () => string,
): void {
  const { clip, lane } = unlockedClip(project, id);
  if (!isPictureLane(lane))
    throw new EditError('This is sound already. Select the picture that it belongs to.');
  const sounds = linkedClips(project, id).filter((f) => !isPictureLane(f.lane));
  if (sounds.length) {
    const link = sounds.length > 1 ? newId() : null;
    for (const { clip: sound } of sounds) sound.link = link;
    const left = linkedClips(project, id);
    if (left.length === 1) clip.link = null;
    return;
  }
  if (!sources.footage[clip.footageId]?.hasAudio)
    throw new EditError('This recording has no sound.');
  const target = project.lanes.find(
    (l) => l.kind === (lane.kind === 'presenter' ? 'voice' : 'computer') && !l.locked,
  );
  if (!target) throw new EditError('The lane for its sound is locked. Unlock it first.');
  const { footageId, start, duration, source, speed } = clip;
  target.clips.push(
    createClip({ id: newId(), footageId, start, duration, source, speed, link: null }),
  );
  orderLanes([target]);
}
