import { nanoid } from 'nanoid';
import type { Framing } from '@/core/project/model';
import { clipEnd } from '@/core/project/clip-time';
import { rampSeconds, perceivedDistance } from '@/core/framing/ramp';
import { areaOf, screenClipAt } from '@/core/project/query';
import type { InFootage } from '@/core/scale/rect';
import { wholeView } from '@/core/scale/sharpness';
import { secondsToTicks, snapToFrame, type Ticks } from '@/core/time/ticks';
import type { EditorState } from './session/state';
import { playheadOf } from './store';

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
    ...{ rect: { ...view }, endRect: null, pinned: true, reason: '' },
  };
}
