import { contains, type Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { PICTURE_LANES, type Clip, type Lane, type LaneKind, type Project } from './model';

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
