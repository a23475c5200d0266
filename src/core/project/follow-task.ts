import { anchorFootage } from '../callout/anchor';
import { shiftAt } from '../callout/follow-path';
import { markedBy, putAt } from '../callout/followed';
import { poseAt } from '../callout/keyframes';
import { intersect, type Rect } from '../scale/rect';
import { ticksToSeconds, type Ticks } from '../time/ticks';
import { sourceEnd, sourceTime } from './clip-time';
import type { Callout, Project } from './model';
import { screenClipAt } from './query';
import { footageOf, type Sources } from './sources';

/** What is to be followed with a callout, and through what of its recording. */
export interface CalloutTask {
  readonly footageId: string;
  /** In pixels of the recording. */
  readonly rect: Rect;
  /** Milliseconds of the recording: when it lies there, and what is looked through. */
  readonly ms: number;
  readonly from: number;
  readonly to: number;
}

const milliseconds = (ticks: Ticks): number => Math.max(0, ticksToSeconds(ticks) * 1000);

/** What is said where nothing can be followed. */
export const NOTHING_TO_FOLLOW =
  'What it lies on shows nothing that could be told again: it is of one colour. Take in some ' +
  'letters or edges, and try again.';

/** Less than this can't be told again. */
const LEAST_SIDE = 4;

/**
 * What there is to follow with a callout.
 *
 * @param time the instant of the timeline at which it lies on what it is to follow
 * @param whole looks through all that the clip shows, not only the callout's time
 * @returns a sentence where it can't be followed
 */
export function followTask(
  project: Project,
  sources: Sources,
  callout: Callout,
  time: Ticks,
  whole: boolean,
): CalloutTask | string {
  const { anchor } = callout;
  const footageId = anchorFootage(anchor);
  if (footageId === null || anchor.to === 'pointer')
    return 'Only what stands on a recording can follow what that shows.';
  const footage = footageOf(sources, footageId);
  const clip = screenClipAt(project, footageId, time);
  if (!footage || !clip) return 'Go to a place at which its recording is shown, and try again.';
  if (!clip.speed) return 'This clip is a frozen picture: nothing moves in it.';
  const ms = milliseconds(sourceTime(clip, time));
  const shift = anchor.to === 'track' ? shiftAt(anchor.path, ms) : null;
  const placed = shift ? ({ ...callout, ...putAt(callout, shift) } as Callout) : callout;
  const rect = intersect(markedBy(placed, footage, poseAt(callout, time - callout.start)), {
    ...{ x: 0, y: 0, width: footage.width, height: footage.height },
  });
  if (!(rect.width >= LEAST_SIDE && rect.height >= LEAST_SIDE))
    return 'It lies beyond the recording’s edges: put it over something, and try again.';
  const [first, last] = [clip.source, sourceEnd(clip)];
  const within = (at: Ticks) => milliseconds(Math.min(Math.max(sourceTime(clip, at), first), last));
  const [from, to] = whole
    ? [milliseconds(first), milliseconds(last)]
    : [within(callout.start), within(callout.end)];
  return { footageId, rect, ms, from: Math.min(from, ms), to: Math.max(to, ms) };
}
