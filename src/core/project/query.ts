import { contains, type Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import type { InFootage, Size } from '../scale/rect';
import { PICTURE_LANES, type Clip, type FootageLook, type Lane, type LaneKind, type Project, type Step } from './model';

/** Whether a lane is seen rather than heard. */
export const isPictureLane = (lane: Lane): boolean => (PICTURE_LANES as readonly LaneKind[]).includes(lane.kind);

/** First instant at which nothing is left on any lane: the length of the tutorial. */
export const projectDuration = (project: Project): Ticks =>
  project.lanes.reduce((end, lane) => lane.clips.reduce((latest, clip) => Math.max(latest, clip.start + clip.duration), end), 0);

/** The clip of a lane at an instant, if any. Clips are ordered, so the search halves. */
export function clipAt(lane: Lane, time: Ticks): Clip | null {
  let low = 0;
  let high = lane.clips.length - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    const clip = lane.clips[middle]!;
    if (time < clip.start) high = middle - 1;
    else if (time >= clip.start + clip.duration) low = middle + 1;
    else return clip;
  }
  return null;
}

/** Time in its footage that a clip shows at an instant of the timeline. */
export const sourceTime = (clip: Clip, time: Ticks): Ticks => clip.source + (time - clip.start);

/** A clip and its lane by the clip's id. */
export function findClip(project: Project, id: string): { lane: Lane; clip: Clip } | null {
  for (const lane of project.lanes) for (const clip of lane.clips) if (clip.id === id) return { lane, clip };
  return null;
}

/** The frontmost visible clip of a kind of lane at an instant. */
export function visibleClip(project: Project, kind: LaneKind, time: Ticks): Clip | null {
  for (const lane of project.lanes)
    if (lane.kind === kind && !lane.off) {
      const clip = clipAt(lane, time);
      if (clip) return clip;
    }
  return null;
}

/** The span that covers an instant, out of spans that never overlap. */
export const spanAt = <S extends Range>(spans: readonly S[], time: Ticks): S | null => spans.find((span) => contains(span, time)) ?? null;

/** A step that stands on the timeline. */
export type PlacedStep = Step & { readonly start: Ticks };

/** The steps that stand on the timeline, in order of time. */
export const placedSteps = (project: Project): PlacedStep[] =>
  project.steps.filter((s): s is PlacedStep => s.start !== null).sort((a, b) => a.start - b.start);

/** The step that an instant belongs to. */
export const stepAt = (project: Project, time: Ticks): PlacedStep | null => placedSteps(project).findLast((s) => s.start <= time) ?? null;

/** The time of a step: until the next one, or the end of the tutorial. Null while it is only planned. */
export function stepRange(project: Project, id: string): Range | null {
  const placed = placedSteps(project);
  const index = placed.findIndex((s) => s.id === id);
  const step = placed[index];
  if (!step) return null;
  return { start: step.start, end: placed[index + 1]?.start ?? Math.max(step.start, projectDuration(project)) };
}

/** How a recording is shown, if that was ever set. */
export const lookOf = (project: Project, footageId: string): FootageLook | null =>
  project.looks.find((l) => l.footageId === footageId) ?? null;

/** The part of a recording that counts as its whole, in footage pixels. */
export function areaOf(project: Project, footage: Size & { readonly id: string }): InFootage {
  const { id, width, height } = footage;
  return lookOf(project, id)?.area ?? { x: 0, y: 0, width, height };
}
