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
  if (found.lane.locked) throw new EditError(`The lane ${found.lane.name} is locked. Unlock it first.`);
  return found;
}

/** A clip and all that are linked to it, on lanes that may be changed. */
export function linkedClips(project: Project, id: string): Found[] {
  const first = unlockedClip(project, id);
  const { link } = first.clip;
  if (!link) return [first];
  const all: Found[] = [];
  for (const lane of project.lanes)
    for (const clip of lane.clips)
      if (clip.link === link) {
        if (lane.locked)
          throw new EditError(`This clip is linked to one on the locked lane ${lane.name}. Unlock the lane or unlink the clips.`);
        all.push({ lane, clip });
      }
  return all;
}

/** Puts the clips of a lane in order of time after they were moved. */
export const sortLane = (lane: Lane): void => {
  lane.clips.sort((a, b) => a.start - b.start);
};

/** Whether a stretch of a lane is free but for some clips. */
export const isFree = (lane: Lane, start: number, end: number, but: ReadonlySet<string>): boolean =>
  lane.clips.every((clip) => but.has(clip.id) || clip.start >= end || clip.start + clip.duration <= start);
