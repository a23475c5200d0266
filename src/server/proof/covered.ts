import { anchorFootage } from '@/core/callout/anchor';
import { markedBy } from '@/core/callout/followed';
import { kindOf } from '@/core/callout/kinds';
import { sourceTime } from '@/core/project/clip-time';
import type { Callout, Project } from '@/core/project/model';
import { screenClipAt } from '@/core/project/query';
import type { Sources } from '@/core/project/sources';
import type { Rect } from '@/core/scale/rect';
import { ticksToSeconds } from '@/core/time/ticks';

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
 * What the covers of a project are to hide: what lies under them where they were put, in the middle
 * of their time, or when they were let to go along. One on the frame hides no part of a recording.
 */
export function hiddenBy(project: Project, sources: Sources): Hidden[] {
  return coversOf(project).flatMap((cover) => {
    const { id, anchor, start, end } = cover;
    const footageId = anchorFootage(anchor);
    const footage = footageId === null ? null : sources.footage[footageId];
    if (!footageId || !footage) return [];
    const found = { coverId: id, footageId, rect: markedBy(cover, footage) };
    if (anchor.to === 'track') return [{ ...found, ms: anchor.path.ms }];
    const middle = Math.floor((start + end) / 2);
    const clip = screenClipAt(project, footageId, middle);
    if (!clip || anchor.to !== 'footage') return [];
    return [{ ...found, ms: Math.max(0, ticksToSeconds(sourceTime(clip, middle)) * 1000) }];
  });
}
