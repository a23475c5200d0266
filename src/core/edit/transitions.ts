import type { Project, Transition } from '../project/model';
import type { Sources } from '../project/sources';
import { ticksToSeconds, TICKS_PER_SECOND, type Ticks } from '../time/ticks';
import { needsHandles, roomAtCut, touch } from '../transition/crossing';
import type { End } from './clips';
import { EditError } from './error';
import { unlockedClip } from './lookup';

export const DEFAULT_TRANSITION: Transition = {
  kind: 'dissolve',
  duration: Math.round(TICKS_PER_SECOND * 0.8),
  color: '#1e2a32',
  from: 'right',
};

const seconds = (ticks: Ticks) =>
  ticks === Infinity ? 'enough' : `${ticksToSeconds(ticks).toFixed(2)} s`;

/**
 * Sets or takes away the transition at an end of a clip. At a cut both names mean the same place:
 * the later clip has it. A longer one than fits is shortened.
 *
 * @param least shortest half that is worth it, in ticks (one frame)
 * @returns its length, 0 for none
 * @throws EditError when the footage has nothing left beyond the cut: what is missing is said
 */
export function setTransition(
  project: Project,
  sources: Sources,
  id: string,
  end: End,
  transition: Transition | null,
  least: Ticks,
): Ticks {
  const { lane, clip } = unlockedClip(project, id);
  const at = lane.clips.indexOf(clip);
  const next = lane.clips[at + 1];
  if (end === 'end' && next && touch(clip, next))
    return setTransition(project, sources, next.id, 'start', transition, least);
  if (end === 'end') {
    clip.transitionOut = transition && {
      ...transition,
      duration: Math.max(least, Math.min(transition.duration, Math.floor(clip.duration / 2))),
    };
    return clip.transitionOut?.duration ?? 0;
  }
  const before = lane.clips[at - 1];
  if (!transition || !before || !touch(before, clip)) {
    clip.transitionIn = transition && {
      ...transition,
      duration: Math.max(least, Math.min(transition.duration, Math.floor(clip.duration / 2))),
    };
    return clip.transitionIn?.duration ?? 0;
  }
  const room = roomAtCut(before, clip, transition.kind, sources);
  if (room.half < least) {
    const name = (footageId: string) => sources.footage[footageId]?.name ?? 'the footage';
    throw new EditError(
      needsHandles(transition) && room.clips >= least
        ? `There is too little footage beyond this cut: ${name(before.footageId)} has ${seconds(room.after)} after it and ${name(clip.footageId)} ${seconds(room.before)} before it. Trim ${room.after < room.before ? 'the end of the first' : 'the start of the second'} clip, or fade through a colour, which needs none.`
        : 'The clips at this cut are too short for a transition.',
    );
  }
  clip.transitionIn = { ...transition, duration: Math.min(transition.duration, room.half * 2) };
  before.transitionOut = null;
  return clip.transitionIn.duration;
}
