import { nanoid } from 'nanoid';
import type { StoreApi } from 'zustand';
import type { Framing } from '@/core/project/model';
import { clipEnd } from '@/core/project/clip-time';
import { rampSeconds, perceivedDistance } from '@/core/framing/ramp';
import { areaOf, screenClipAt } from '@/core/project/query';
import type { InFootage } from '@/core/scale/rect';
import { wholeView } from '@/core/scale/sharpness';
import { secondsToTicks, snapToFrame, type Ticks } from '@/core/time/ticks';
import { tell } from '../shell/notices-store';
import type { EditorState } from './session/state';
import { playheadOf } from './store';
import { undoAction } from './undo-action';

/** A framing that is set by hand lasts so long, in seconds, where there is room for it. */
const SECONDS = 5;

/**
 * A framing at the playhead, not in the document yet, for as long as its recording goes on; null
 * where that is not under the playhead.
 */
export function newFraming(
  state: EditorState,
  footageId: string,
  view: InFootage,
  turn = 0,
  length: Ticks = secondsToTicks(SECONDS),
): Framing | null {
  const { project, sources } = state;
  const footage = sources.footage[footageId];
  const start = snapToFrame(playheadOf(state), project.canvas.frameRate);
  const clip = screenClipAt(project, footageId, start);
  if (!footage || !clip) return null;
  const end = Math.min(start + length, clipEnd(clip));
  const whole = wholeView(areaOf(project, footage), project.canvas);
  const usual = secondsToTicks(rampSeconds(perceivedDistance(whole, view)));
  const ramp = Math.min(usual, Math.floor((end - start) / 3));
  return {
    ...{ id: nanoid(), start, end, rampIn: ramp, rampOut: ramp, footageId },
    ...{ rect: { ...view }, endRect: null, pinned: true, reason: '', ...(turn && { turn }) },
  };
}

/**
 * Adds a framing and selects it; says what it took the place of, since one at a time counts.
 */
export function addFraming(store: StoreApi<EditorState>, framing: Framing): void {
  const { apply, select, project } = store.getState();
  const { start, end } = framing;
  const under = project.framings.filter((f) => f.start < end && f.end > start);
  if (!apply('add-framing', { framing })) return;
  select({ kind: 'framings', id: framing.id });
  const left = new Set(store.getState().project.framings.map(({ id }) => id));
  const gone = under.filter(({ id }) => !left.has(id)).length;
  const shorter = under.length - gone;
  const what = [
    ...(gone
      ? [gone === 1 ? 'one that stood here is gone' : `${gone} that stood here are gone`]
      : []),
    ...(shorter ? [shorter === 1 ? 'one was made shorter' : `${shorter} were made shorter`] : []),
  ];
  if (what.length) tell(`One framing counts at a time: ${what.join(', ')}.`, undoAction(store));
}
