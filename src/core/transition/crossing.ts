import { clipEnd, handles } from '../project/clip-time';
import type { Clip, Lane, Transition } from '../project/model';
import { lastStarted } from '../project/query';
import type { Sources } from '../project/sources';
import type { Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';

/** What a lane shows at an instant: one clip, or the way from one to the next. */
export interface Crossing {
  /** What goes; null at a free start, and where there is no transition. */
  readonly from: Clip | null;
  /** What comes, or is simply there; null at a free end. */
  readonly to: Clip | null;
  readonly transition: Transition | null;
  /** How much of what comes is there, 0 to 1. */
  readonly amount: number;
}

/** Whether pictures of both clips are seen at once, so that footage beyond the cut is needed. */
export const needsHandles = (transition: Pick<Transition, 'kind'>): boolean =>
  transition.kind !== 'fade';

/** Two clips with nothing between them. */
export const touch = (a: Clip | undefined, b: Clip | undefined): boolean =>
  !!a && !!b && clipEnd(a) === b.start;

/** What limits a transition at a cut, in timeline ticks on each side of it. */
export interface TransitionRoom {
  /** Footage of the earlier clip beyond the cut, and of the later one before it. */
  readonly after: Ticks;
  readonly before: Ticks;
  /** Half of the shorter clip: a transition never meets the next one. */
  readonly clips: Ticks;
  /** The longest half that fits. */
  readonly half: Ticks;
}

/** How much room there is for a transition at the start of a clip that touches the one before. */
export function roomAtCut(
  a: Clip,
  b: Clip,
  kind: Transition['kind'],
  sources: Sources,
): TransitionRoom {
  const after = handles(a, sources.footage[a.footageId]).after;
  const before = handles(b, sources.footage[b.footageId]).before;
  const clips = Math.floor(Math.min(a.duration, b.duration) / 2);
  return {
    after,
    before,
    clips,
    half: Math.max(0, needsHandles({ kind }) ? Math.min(after, before, clips) : clips),
  };
}

/**
 * The time that the transition at a clip's start really takes; null where it has none or there is
 * no room.
 */
export function startRange(lane: Lane, index: number, sources: Sources): Range | null {
  const clip = lane.clips[index]!;
  const before = lane.clips[index - 1];
  const { transitionIn } = clip;
  if (!transitionIn) return null;
  if (!touch(before, clip))
    return {
      start: clip.start,
      end: clip.start + Math.min(transitionIn.duration, Math.floor(clip.duration / 2)),
    };
  const half = Math.min(
    Math.floor(transitionIn.duration / 2),
    roomAtCut(before!, clip, transitionIn.kind, sources).half,
  );
  return half > 0 ? { start: clip.start - half, end: clip.start + half } : null;
}

/**
 * The time that the transition at a clip's free end takes; null where it has none or another clip
 * follows at once.
 */
export function endRange(lane: Lane, index: number): Range | null {
  const clip = lane.clips[index]!;
  if (!clip.transitionOut || touch(clip, lane.clips[index + 1])) return null;
  const end = clipEnd(clip);
  return { start: end - Math.min(clip.transitionOut.duration, Math.floor(clip.duration / 2)), end };
}

const share = (range: Range, time: Ticks) => (time - range.start) / (range.end - range.start);

/** What a lane shows at an instant; null where nothing stands. */
export function crossingAt(lane: Lane, time: Ticks, sources: Sources): Crossing | null {
  const index = lastStarted(lane, time);
  const clip = lane.clips[index];
  if (!clip || time >= clipEnd(clip)) return null;
  const opening = startRange(lane, index, sources);
  if (opening && time < opening.end) {
    const before = lane.clips[index - 1];
    return {
      from: touch(before, clip) ? before! : null,
      to: clip,
      transition: clip.transitionIn,
      amount: share(opening, time),
    };
  }
  const next = lane.clips[index + 1];
  if (next && touch(clip, next)) {
    const closing = startRange(lane, index + 1, sources);
    if (closing && time >= closing.start)
      return { from: clip, to: next, transition: next.transitionIn, amount: share(closing, time) };
  } else {
    const closing = endRange(lane, index);
    if (closing && time >= closing.start)
      return { from: clip, to: null, transition: clip.transitionOut, amount: share(closing, time) };
  }
  return { from: null, to: clip, transition: null, amount: 1 };
}
