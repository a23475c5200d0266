import { clipEnd } from '../project/clip-time';
import { createLane } from '../project/create';
import type { Lane, LaneKind, Project } from '../project/model';
import { isPictureLane } from '../project/query';
import { overlaps, type Range } from '../time/ranges';
import { EditError } from './error';
import { unlockedLane } from './lookup';

const MOST_LANES = 64;

/**
 * Puts an empty lane of a kind at a place in the order of lanes, with a name of its own.
 * @throws EditError when there are too many
 */
export function insertLane(
  project: Project,
  kind: LaneKind,
  at: number,
  newId: () => string,
): Lane {
  if (project.lanes.length >= MOST_LANES)
    throw new EditError(`A project has ${MOST_LANES} lanes at most. Remove one that is empty.`);
  const lane = createLane(kind, newId());
  const base = lane.name;
  for (let n = 2; project.lanes.some((l) => l.name === lane.name); n++) lane.name = `${base} ${n}`;
  project.lanes.splice(at, 0, lane);
  return lane;
}

/** Whether nothing stands on a lane in a stretch of time. */
export const isFree = ({ clips }: Lane, range: Range): boolean =>
  !clips.some((clip) => overlaps({ start: clip.start, end: clipEnd(clip) }, range));

/**
 * The first unlocked lane of a kind that is free for a stretch of time; a new one below those of its
 * kind where none is.
 * @throws EditError when there are too many
 */
export function freeLane(
  project: Project,
  kind: LaneKind,
  range: Range,
  newId: () => string,
): Lane {
  const all = project.lanes.filter((lane) => lane.kind === kind);
  const free = all.find((lane) => !lane.locked && isFree(lane, range));
  const below = all.length ? project.lanes.indexOf(all.at(-1)!) + 1 : project.lanes.length;
  return free ?? insertLane(project, kind, below, newId);
}

/** Adds an empty lane of a kind in front of those of its kind. Answers its id. */
export function addLane(project: Project, kind: LaneKind, newId: () => string): string {
  const first = project.lanes.findIndex((l) => l.kind === kind);
  return insertLane(project, kind, first < 0 ? project.lanes.length : first, newId).id;
}

/**
 * Removes a lane with all that stands on it. What was linked to its clips stays.
 * @throws EditError for a locked lane, and for the last one of its kind, which new footage needs
 */
export function removeLane(project: Project, laneId: string): void {
  const lane = unlockedLane(project, laneId);
  if (project.lanes.filter((l) => l.kind === lane.kind).length === 1)
    throw new EditError(
      `${lane.name} is the only lane of its kind, and footage of that kind has to stand somewhere. Hide or mute it instead.`,
    );
  project.lanes.splice(project.lanes.indexOf(lane), 1);
}

/**
 * Moves a lane up or down by some places among those of its family; towards the top is towards the
 * front of the picture.
 * @throws EditError when it is there already
 */
export function moveLane(project: Project, laneId: string, by: number): void {
  const lane = project.lanes.find((l) => l.id === laneId);
  if (!lane) throw new EditError('That lane is no longer there.');
  const family = project.lanes.filter((l) => isPictureLane(l) === isPictureLane(lane));
  const to = family[family.indexOf(lane) + by];
  if (!to) throw new EditError(`${lane.name} is ${by < 0 ? 'in front' : 'at the back'} already.`);
  const target = project.lanes.indexOf(to);
  project.lanes.splice(project.lanes.indexOf(lane), 1);
  project.lanes.splice(target, 0, lane);
}

/** What can be changed of a locked lane: only how it is looked at and listened to. */
const FREE = new Set<keyof Lane>(['locked', 'off', 'solo', 'height']);

/** Switches a lane's sight or sound, locks it, or sets its level, name or height. */
export function changeLane(
  project: Project,
  laneId: string,
  change: Partial<Pick<Lane, 'off' | 'solo' | 'locked' | 'gain' | 'name' | 'height'>>,
): void {
  const lane = project.lanes.find((l) => l.id === laneId);
  if (!lane) throw new EditError('That lane is no longer there.');
  if (lane.locked && !(Object.keys(change) as (keyof Lane)[]).every((key) => FREE.has(key)))
    unlockedLane(project, laneId);
  Object.assign(
    lane,
    change,
    change.gain === undefined ? {} : { gain: Math.min(24, Math.max(-96, change.gain)) },
  );
}
