import { countFront } from '../bisect';
import { pictureOfGround } from '../layout/ground';
import { contains, type Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { fitSize, type InFootage, type Size } from '../scale/rect';
import { clipEnd } from './clip-time';
import {
  PICTURE_LANES,
  type Clip,
  type FootageLook,
  type Lane,
  type LaneKind,
  type Project,
  type Step,
} from './model';
import type { FootageFacts } from './sources';

/** Whether a lane is seen rather than heard. */
export const isPictureLane = (lane: Lane): boolean =>
  (PICTURE_LANES as readonly LaneKind[]).includes(lane.kind);

/** Whether a lane is seen or heard: switched on, and not silenced by another one's solo. */
export const isLaneOn = (project: Pick<Project, 'lanes'>, lane: Lane): boolean =>
  !lane.off &&
  (lane.solo ||
    !project.lanes.some((other) => other.solo && isPictureLane(other) === isPictureLane(lane)));

/** Where the last clip of a lane ends; 0 for an empty one. Clips are ordered and never overlap. */
export function laneEnd(lane: Lane): Ticks {
  const last = lane.clips[lane.clips.length - 1];
  return last ? clipEnd(last) : 0;
}

/** The ids of all footage that clips show or sound. */
export const usedFootage = (
  lanes: readonly { readonly clips: readonly Pick<Clip, 'footageId'>[] }[],
): ReadonlySet<string> =>
  new Set(lanes.flatMap((lane) => lane.clips.map((clip) => clip.footageId)));

/**
 * The ids of all footage that a project shows or sounds: in clips, as pictures over them, behind
 * the presenter and behind all.
 */
export const shownFootage = ({
  lanes,
  callouts,
  canvas,
  layouts,
  presenter: { backdrop },
}: Pick<Project, 'lanes' | 'callouts' | 'canvas' | 'layouts' | 'presenter'>): ReadonlySet<string> =>
  new Set([
    ...usedFootage(lanes),
    ...callouts.flatMap((one) => (one.kind === 'picture' ? [one.footageId] : [])),
    ...(typeof backdrop === 'object' && backdrop && 'footageId' in backdrop
      ? [backdrop.footageId]
      : []),
    ...pictureOfGround(canvas.background),
    ...layouts.flatMap(({ layout }) => pictureOfGround(layout.background)),
  ]);

/** The recordings on lanes of presenters, each once. */
export const presenterTakes = ({ lanes }: Pick<Project, 'lanes'>): ReadonlySet<string> =>
  usedFootage(lanes.filter(({ kind }) => kind === 'presenter'));

/** The middle of a clip in which a presenter's recording is in front; null where it never is. */
export function presentedAt(project: Project, footageId: string): Ticks | null {
  for (const { kind, clips } of project.lanes)
    for (const clip of kind === 'presenter' ? clips : []) {
      const time = Math.round((clip.start + clipEnd(clip)) / 2);
      if (clip.footageId === footageId && visibleClip(project, 'presenter', time) === clip)
        return time;
    }
  return null;
}

/** First instant at which nothing is left on any lane: the length of the tutorial. */
export const projectDuration = (project: Project): Ticks =>
  project.lanes.reduce((end, lane) => Math.max(end, laneEnd(lane)), 0);

/** The clip of a lane at an instant, if any. Clips are ordered, so the search halves. */
export function clipAt(lane: Lane, time: Ticks): Clip | null {
  const clip = lane.clips[lastStarted(lane, time)];
  return clip && time < clipEnd(clip) ? clip : null;
}

/** Index of the last clip of a lane that begins at or before an instant; -1 before the first. */
export const lastStarted = (lane: Lane, time: Ticks): number =>
  countFront(lane.clips, ({ start }) => start <= time) - 1;

/** A clip and its lane by the clip's id. */
export function findClip(project: Project, id: string): { lane: Lane; clip: Clip } | null {
  for (const lane of project.lanes)
    for (const clip of lane.clips) if (clip.id === id) return { lane, clip };
  return null;
}

/** The frontmost visible clip of a kind of lane at an instant. */
export function visibleClip(project: Project, kind: LaneKind, time: Ticks): Clip | null {
  for (const lane of project.lanes)
    if (lane.kind === kind && isLaneOn(project, lane)) {
      const clip = clipAt(lane, time);
      if (clip) return clip;
    }
  return null;
}

/** The clip in which a recording is seen at an instant, on whatever screen lane; null if in none. */
export function screenClipAt(project: Project, footageId: string, time: Ticks): Clip | null {
  for (const lane of project.lanes) {
    if (lane.kind !== 'screen' || !isLaneOn(project, lane)) continue;
    const clip = clipAt(lane, time);
    if (clip?.footageId === footageId) return clip;
  }
  return null;
}

/** The span that covers an instant, out of spans that never overlap. */
export const spanAt = <S extends Range>(spans: readonly S[], time: Ticks): S | null =>
  spans.find((span) => contains(span, time)) ?? null;

/** A step that stands on the timeline. */
export type PlacedStep = Step & { readonly start: Ticks };

/** The steps that stand on the timeline, in order of time. */
export const placedSteps = (project: Project): PlacedStep[] =>
  project.steps.filter((s): s is PlacedStep => s.start !== null).sort((a, b) => a.start - b.start);

/** The step that an instant belongs to. */
export const stepAt = (project: Project, time: Ticks): PlacedStep | null =>
  placedSteps(project).findLast((s) => s.start <= time) ?? null;

/**
 * The time of a step: until the next one, or the end of the tutorial. Null while it is only
 * planned.
 */
export function stepRange(project: Project, id: string): Range | null {
  const placed = placedSteps(project);
  const index = placed.findIndex((s) => s.id === id);
  const step = placed[index];
  if (!step) return null;
  return {
    start: step.start,
    end: placed[index + 1]?.start ?? Math.max(step.start, projectDuration(project)),
  };
}

/** How a recording is shown, if that was ever set. */
export const lookOf = (project: Project, footageId: string): FootageLook | null =>
  project.looks.find((l) => l.footageId === footageId) ?? null;

/** Whether the text of a recording is rebuilt where it is magnified; not that of presenters. */
export const isCrisp = (
  project: Project,
  { id, role }: Pick<FootageFacts, 'id' | 'role'>,
): boolean => role !== 'presenter' && project.canvas.crisp && (lookOf(project, id)?.crisp ?? true);

/**
 * The part of a recording that counts as its whole, in footage pixels; where it is to fill the
 * picture, of the picture's shape.
 */
export function areaOf(project: Project, footage: Size & { readonly id: string }): InFootage {
  const { id, width, height } = footage;
  const look = lookOf(project, id);
  const area = look?.area ?? { x: 0, y: 0, width, height };
  if (look?.fit !== 'fill') return area;
  const part = fitSize(project.canvas, area);
  return {
    x: area.x + (area.width - part.width) / 2,
    y: area.y + (area.height - part.height) / 2,
    ...part,
  };
}
