import { clipEnd } from '../project/clip-time';
import { findClip } from '../project/query';
import type { Clip, Lane, Project } from '../project/model';
import { EditError } from './error';

export interface Found {
  readonly lane: Lane;
  readonly clip: Clip;
}

/** A clip by its id, on a lane that may be changed. */
export function unlockedClip(project: Project, id: string): Found {
  const found = findClip(project, id);
  if (!found) throw new EditError('That clip is no longer there.');
  if (found.lane.locked)
    throw new EditError(`The lane ${found.lane.name} is locked. Unlock it first.`);
  return found;
}

/**
 * Clips and all that are linked to them, on lanes that may be changed, in the order of the lanes.
 */
export function withLinked(project: Project, ids: readonly string[]): Found[] {
  const links = new Set<string>();
  const wanted = new Set(ids);
  for (const id of ids) {
    const { link } = unlockedClip(project, id).clip;
    if (link) links.add(link);
  }
  const all: Found[] = [];
  for (const lane of project.lanes)
    for (const clip of lane.clips) {
      if (!wanted.has(clip.id) && !(clip.link && links.has(clip.link))) continue;
      if (lane.locked)
        throw new EditError(
          `This clip is linked to one on the locked lane ${lane.name}. Unlock the lane or unlink the clips.`,
        );
      all.push({ lane, clip });
    }
  return all;
}

/** A clip and all that are linked to it, on lanes that may be changed. */
export const linkedClips = (project: Project, id: string): Found[] => withLinked(project, [id]);

/** A lane by its id, one that may be changed. */
export function unlockedLane(project: Project, id: string): Lane {
  const lane = project.lanes.find((l) => l.id === id);
  if (!lane) throw new EditError('That lane is no longer there.');
  if (lane.locked) throw new EditError(`The lane ${lane.name} is locked. Unlock it first.`);
  return lane;
}

/** Puts the clips of a lane in order of time after they were moved. */
export const sortLane = (lane: Lane): void => {
  lane.clips.sort((a, b) => a.start - b.start);
};

/** Puts the clips of lanes in order and makes sure that none lies over another. */
export function orderLanes(lanes: Iterable<Lane>): void {
  for (const lane of new Set(lanes)) {
    sortLane(lane);
    for (let i = 1; i < lane.clips.length; i++)
      if (lane.clips[i]!.start < clipEnd(lane.clips[i - 1]!))
        throw new EditError(
          `There is no room here on the lane ${lane.name}. Move the clip to a gap, or make one first.`,
        );
  }
}
