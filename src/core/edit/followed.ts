import { shiftAt, type FollowPath } from '../callout/follow-path';
import { putAt } from '../callout/followed';
import type { Stretch } from '../callout/mended-path';
import { anchorFootage } from '../callout/anchor';
import { startingLater } from '../callout/keyframes';
import { clipEnd, sourceMs, timelineTime } from '../project/clip-time';
import type { Callout, Project } from '../project/model';
import { screenClipAt } from '../project/query';
import { secondsToTicks, type Ticks } from '../time/ticks';
import { EditError } from './error';

const calloutOf = (project: Project, id: string): Callout => {
  const callout = project.callouts.find((one) => one.id === id);
  if (!callout) throw new EditError('It is no longer there.');
  return callout;
};

/** Puts a callout that follows where it is at an instant, on the recording itself. */
function putDown(project: Project, callout: Callout, time: Ticks): string {
  const { anchor } = callout;
  const footageId = anchorFootage(anchor);
  if (footageId === null || anchor.to === 'pointer')
    throw new EditError('Only what stands on a recording can follow what that shows.');
  if (anchor.to !== 'track') return footageId;
  const clip = screenClipAt(project, footageId, time);
  const shift = clip && shiftAt(anchor.path, sourceMs(clip, time));
  if (shift) Object.assign(callout, putAt(callout, shift));
  return footageId;
}

/**
 * Has a callout go along with what it marks.
 *
 * @param time when it lay on that, on the timeline; one that followed already is put where it was
 *   then
 * @param whole gives it all of the time in which its content is seen, within the clip at that time
 * @param frame length of one, in ticks
 * @throws EditError for one that stands on the frame or on the pointer
 */
export function followContentOf(
  project: Project,
  id: string,
  path: FollowPath,
  { time, whole }: { readonly time: Ticks; readonly whole: boolean },
  frame: Ticks,
): void {
  const callout = calloutOf(project, id);
  const footageId = putDown(project, callout, time);
  callout.anchor = { to: 'track', footageId, path };
  const clip = whole ? screenClipAt(project, footageId, time) : null;
  if (!clip || !clip.speed || !path.runs.length) return;
  const [first, last] = path.runs.reduce(
    ([least, most], { from, to }) => [Math.min(least, from), Math.max(most, to)],
    [Infinity, 0],
  );
  const at = (ms: number) => timelineTime(clip, secondsToTicks(ms / 1000));
  // Which of two pictures is shown is a matter of rounding: one more on either side.
  const from = Math.floor(at(first - path.step) / frame) * frame;
  const to = Math.ceil(at(last + path.step) / frame) * frame;
  const start = Math.max(clip.start, from);
  const end = Math.min(clipEnd(clip), to);
  if (end > start) {
    callout.keyframes = startingLater(callout.keyframes, start - callout.start);
    Object.assign(callout, { start, end });
  }
  project.callouts.sort((a, b) => a.start - b.start);
}

/** Has a callout stay where it is at an instant. */
export function restCallout(project: Project, id: string, time: Ticks): void {
  const callout = calloutOf(project, id);
  callout.anchor = { to: 'footage', footageId: putDown(project, callout, time) };
}

/**
 * Mends where a callout goes along in a stretch of its recording.
 *
 * @throws EditError for one that does not go along, and for a stretch that was not looked through
 */
export function mendWay(
  project: Project,
  id: string,
  { from, to }: Stretch,
  mend: (path: FollowPath) => FollowPath,
): void {
  const { anchor } = calloutOf(project, id);
  if (anchor.to !== 'track')
    throw new EditError('It goes along with nothing that could be mended.');
  const { path } = anchor;
  if (from >= to || from < path.from || to > path.to)
    throw new EditError('It was not looked for then. Let it go along again from here.');
  anchor.path = mend(path);
}
