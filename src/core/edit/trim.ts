import { clipEnd, handles } from '../project/clip-time';
import type { Clip, Lane, Project } from '../project/model';
import type { Sources } from '../project/sources';
import type { Ticks } from '../time/ticks';
import { footageLimits, moveEnd } from './clips';
import { EditError } from './error';
import { linkedClips, unlockedClip, type Found } from './lookup';

const clamp = (by: Ticks, limits: readonly (readonly [Ticks, Ticks])[], message: string): Ticks => {
  const low = Math.max(...limits.map(([l]) => l));
  const high = Math.min(...limits.map(([, h]) => h));
  if (low > high) throw new EditError(message);
  return Math.min(Math.max(by, low), high);
};

const neighbours = ({
  lane,
  clip,
}: Found): { before: Clip | undefined; after: Clip | undefined } => {
  const at = lane.clips.indexOf(clip);
  return { before: lane.clips[at - 1], after: lane.clips[at + 1] };
};

/**
 * Rolls the cut where a clip begins, and those of its linked partners there, by some ticks: the
 * clip before ends later and this one begins later, or both earlier. Nothing else moves.
 *
 * @param least shortest clip that may remain, in ticks (one frame)
 */
export function rollCut(
  project: Project,
  sources: Sources,
  id: string,
  by: Ticks,
  least: Ticks,
): void {
  const { clip } = unlockedClip(project, id);
  const cuts = linkedClips(project, id)
    .filter((f) => f.clip.start === clip.start)
    .flatMap((f): { left: Clip; right: Clip }[] => {
      const { before } = neighbours(f);
      return before && clipEnd(before) === f.clip.start ? [{ left: before, right: f.clip }] : [];
    });
  if (!cuts.some((c) => c.right.id === id))
    throw new EditError('There is no cut here to roll: nothing touches the start of this clip.');
  const delta = clamp(
    by,
    cuts.flatMap(({ left, right }) => [
      footageLimits(left, 'end', sources, least),
      footageLimits(right, 'start', sources, least),
    ]),
    'The cut can’t be rolled: there is no footage left for it.',
  );
  for (const { left, right } of cuts) {
    moveEnd(left, 'end', delta);
    moveEnd(right, 'start', delta);
  }
}

/**
 * Slips what a clip and its linked partners show, by some ticks of the timeline, while they stay
 * where they are. Later footage for a time above 0.
 */
export function slipClip(project: Project, sources: Sources, id: string, by: Ticks): void {
  const group = linkedClips(project, id);
  if (group.some((f) => f.clip.speed === 0 || sources.footage[f.clip.footageId]?.kind === 'image'))
    throw new EditError('A picture that does not move has nothing to slip.');
  const delta = clamp(
    by,
    group.map(({ clip }) => {
      const { before, after } = handles(clip, sources.footage[clip.footageId]);
      return [-before, after] as const;
    }),
    'There is no footage left to slip to.',
  );
  for (const { clip } of group) clip.source += Math.round(delta * clip.speed);
}

/**
 * Slides a clip, and its linked partners, between its neighbours by some ticks: the one before ends
 * and the one after begins where it now lies. Where no neighbour touches, it moves into the gap.
 */
export function slideClip(
  project: Project,
  sources: Sources,
  id: string,
  by: Ticks,
  least: Ticks,
): void {
  const group = linkedClips(project, id).map((f) => ({ ...f, ...neighbours(f) }));
  const touches = (a: Clip | undefined, b: Clip | undefined) =>
    !!a && !!b && clipEnd(a) === b.start;
  const limits = group.flatMap(({ clip, before, after }): (readonly [Ticks, Ticks])[] => [
    [-clip.start, Infinity],
    touches(before, clip)
      ? footageLimits(before!, 'end', sources, least)
      : [before ? clipEnd(before) - clip.start : -Infinity, Infinity],
    touches(clip, after)
      ? footageLimits(after!, 'start', sources, least)
      : [-Infinity, after ? after.start - clipEnd(clip) : Infinity],
  ]);
  const delta = clamp(by, limits, 'The clip can’t slide: its neighbours have no footage left.');
  for (const { clip, before, after } of group) {
    const [left, right] = [touches(before, clip), touches(clip, after)];
    if (left) moveEnd(before!, 'end', delta);
    if (right) moveEnd(after!, 'start', delta);
    clip.start += delta;
  }
}

/**
 * The clip of a lane whose start is nearest to an instant, among those that begin at a cut; for
 * commands that act on a cut.
 */
export function nearestCut(lane: Lane, time: Ticks): Clip | null {
  let best: Clip | null = null;
  lane.clips.forEach((clip, i) => {
    const before = lane.clips[i - 1];
    if (
      before &&
      clipEnd(before) === clip.start &&
      (!best || Math.abs(clip.start - time) < Math.abs(best.start - time))
    )
      best = clip;
  });
  return best;
}
