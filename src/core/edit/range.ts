import { clipEnd } from '../project/clip-time';
import type { Lane, Project } from '../project/model';
import { overlaps, type Range } from '../time/ranges';
import { EditError } from './error';
import { partsOutside, relinker } from './pieces';
import { rippleDelete } from './ripple';

/** Lanes that a command on a range acts on: those that were chosen, or all that are not locked. */
export function lanesOf(project: Project, chosen: readonly string[] | null): Lane[] {
  const lanes = project.lanes.filter((l) => (chosen ? chosen.includes(l.id) : !l.locked));
  const locked = lanes.find((l) => l.locked);
  if (locked)
    throw new EditError(
      `The lane ${locked.name} is locked. Unlock it first, or leave it out of the range.`,
    );
  if (!lanes.length) throw new EditError('All lanes are locked. Unlock one first.');
  return lanes;
}

const somethingIn = (lane: Lane, range: Range) =>
  lane.clips.some((c) => overlaps({ start: c.start, end: clipEnd(c) }, range));

/** Frees a stretch of some lanes; what reaches into it from outside is cut there. */
export function clearRange(lanes: readonly Lane[], range: Range, newId: () => string): void {
  const relink = relinker(newId);
  for (const lane of lanes)
    lane.clips = lane.clips.flatMap((clip) => partsOutside(clip, range, newId, relink));
}

/**
 * Removes what stands in a range on the chosen lanes, or on all unlocked ones, and leaves the gap.
 * @throws EditError when nothing stands there
 */
export function liftRange(
  project: Project,
  range: Range,
  chosen: readonly string[] | null,
  newId: () => string,
): void {
  const lanes = lanesOf(project, chosen);
  if (!lanes.some((lane) => somethingIn(lane, range)))
    throw new EditError('Nothing stands in the range on these lanes.');
  clearRange(lanes, range, newId);
}

/**
 * Removes the time of a range. With lanes chosen, the others must have nothing there, since what
 * comes after moves on all unlocked lanes.
 * @throws EditError when another lane has something in the range
 */
export function rippleDeleteRange(
  project: Project,
  range: Range,
  chosen: readonly string[] | null,
  newId: () => string,
): void {
  const lanes = lanesOf(project, chosen);
  const other = project.lanes.find((l) => !l.locked && !lanes.includes(l) && somethingIn(l, range));
  if (other)
    throw new EditError(
      `${other.name} has something in this range too. Choose that lane as well, lock it, or lift instead of closing the gap.`,
    );
  rippleDelete(project, range, newId);
}
