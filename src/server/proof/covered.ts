import { anchorFootage } from '@/core/callout/anchor';
import { markedBy } from '@/core/callout/followed';
import { fullySeenFrom } from '@/core/callout/motion';
import { kindOf } from '@/core/callout/kinds';
import { poseAt } from '@/core/callout/keyframes';
import { sourceMs, timelineTime } from '@/core/project/clip-time';
import type { Callout, Project } from '@/core/project/model';
import { screenClipAt } from '@/core/project/query';
import { footageOf, type Sources } from '@/core/project/sources';
import type { Rect } from '@/core/scale/rect';
import { secondsToTicks, type Ticks } from '@/core/time/ticks';

/** What a cover is to hide: a part of a recording as it looks at some time. */
export interface Hidden {
  readonly coverId: string;
  readonly footageId: string;
  /** In pixels of the recording. */
  readonly rect: Rect;
  /** Milliseconds of the recording. */
  readonly ms: number;
}

/** The covers of a project. */
export const coversOf = (project: Project): Callout[] =>
  project.callouts.filter((callout) => kindOf(callout).level === 'cover');

/**
 * What the covers of a project are to hide: what lay under them when they were let to go along; of
 * one that stays where it is, what lies there once it is fully seen, when it was put there as a rule,
 * in the middle of its time, and where a place of it is kept. One on the frame or the pointer hides no
 * part of a recording.
 */
export function hiddenBy(project: Project, sources: Sources): Hidden[] {
  return coversOf(project).flatMap((cover) => {
    const { id, anchor, start, end } = cover;
    const footageId = anchorFootage(anchor);
    const footage = footageId === null ? null : footageOf(sources, footageId);
    if (!footage || anchor.to === 'pointer') return [];
    const hiddenAt = (time: Ticks, ms: number): Hidden => ({
      ...{ coverId: id, footageId: footage.id, ms: Math.max(0, ms) },
      rect: markedBy(cover, footage, poseAt(cover, time - start)),
    });
    if (anchor.to === 'track') {
      const { ms } = anchor.path;
      const clip = screenClipAt(project, footage.id, start);
      return [hiddenAt(clip ? timelineTime(clip, secondsToTicks(ms / 1000)) : start, ms)];
    }
    const placed = fullySeenFrom(cover, project.canvas.frameRate);
    const kept = cover.keyframes.map(({ at }) => start + at);
    return [placed, Math.floor((start + end) / 2), ...kept]
      .filter((time) => time >= start && time < end)
      .flatMap((time) => {
        const clip = screenClipAt(project, footage.id, time);
        return clip ? [hiddenAt(time, sourceMs(clip, time))] : [];
      });
  });
}
