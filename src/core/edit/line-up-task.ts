import type { Clip, Project } from '../project/model';
import { findClip } from '../project/query';
import { footageOf, type Sources } from '../project/sources';
import { stillOf } from './line-up';

/** Clips that are to be lined up, and whose sound tells how. */
export interface LineUpTask {
  /** The clip that the others are compared with. */
  readonly still: string;
  readonly parts: readonly {
    /** What is moved. */
    readonly clipIds: readonly string[];
    /** The clip whose sound tells where to. */
    readonly hears: string;
  }[];
}

/** What has the sound of a clip: it, or one of the same take that is linked to it. */
function hearing(project: Project, sources: Sources, id: string): Clip | null {
  const clip = findClip(project, id)?.clip;
  if (!clip) return null;
  const hears = (one: Clip) => one.speed > 0 && footageOf(sources, one.footageId)?.hasAudio;
  if (hears(clip)) return clip;
  const linked = project.lanes.flatMap(({ clips }) =>
    clips.filter((one) => clip.link !== null && one.link === clip.link),
  );
  return linked.find(hears) ?? null;
}

/** What a single clip is lined up with: a screen of another recording with sound, or else a voice. */
function besideOf(project: Project, sources: Sources, id: string): string[] {
  const own = findClip(project, id)?.clip;
  for (const kind of ['screen', 'computer', 'voice', 'presenter'])
    for (const lane of project.lanes) {
      if (lane.kind !== kind) continue;
      const other = lane.clips.find(
        (clip) =>
          clip.footageId !== own?.footageId &&
          (clip.link === null || clip.link !== own?.link) &&
          hearing(project, sources, clip.id),
      );
      if (other) return [other.id];
    }
  return [];
}

/**
 * What is to be compared so that clips can be lined up: a screen stays where it is, or what begins
 * first, and all others are compared with it. A clip without sound goes by that of its take.
 *
 * @param chosen the clips; of a single one, what it is compared with is found
 * @returns a sentence where it can't be done
 */
export function lineUpTask(
  project: Project,
  sources: Sources,
  chosen: readonly string[],
): LineUpTask | string {
  const ids = chosen.length === 1 ? [...chosen, ...besideOf(project, sources, chosen[0]!)] : chosen;
  const first = stillOf(project, ids);
  const still = first && hearing(project, sources, first);
  const nameOf = ({ footageId }: Clip) => footageOf(sources, footageId)?.name ?? 'A recording';
  const without = (id: string) =>
    `${nameOf(findClip(project, id)!.clip)} has no sound by which it could be lined up.`;
  if (first && !still) return without(first);
  const parts = new Map<string, string[]>();
  for (const id of ids) {
    const clip = findClip(project, id)?.clip;
    if (!clip || !still || id === first || id === still.id) continue;
    // What is linked to the clip that stays and of its recording is in line already.
    if (clip.link !== null && clip.link === still.link && clip.footageId === still.footageId)
      continue;
    const heard = hearing(project, sources, id);
    if (!heard) return without(id);
    parts.set(heard.id, [...(parts.get(heard.id) ?? []), id]);
  }
  if (!still || !parts.size)
    return 'Select two clips or more of different recordings that heard the same.';
  if (parts.has(still.id))
    return 'One of them has no sound of its own and goes by that of the other. Unlink them first.';
  return {
    still: still.id,
    parts: [...parts].map(([hears, clipIds]) => ({
      hears,
      clipIds: [...new Set([...clipIds, hears])],
    })),
  };
}
