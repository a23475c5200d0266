import type { CalloutScene, Handle } from '@/core/callout/kind';
import { movedCallout, type Way } from '@/core/callout/moved';
import type { Callout } from '@/core/project/model';
import { frameDuration } from '@/core/time/ticks';
import type { EditorState } from '../session/state';
import { playheadOf } from '../store';

/**
 * What becomes of a callout when one of its handles is moved by a way in frame pixels, as the
 * playhead stands.
 *
 * @param handle null for all of it
 */
export function moveCallout(
  state: EditorState,
  callout: Callout,
  handle: Handle | null,
  on: CalloutScene,
  way: Way,
): Partial<Callout> {
  const frame = frameDuration(state.project.canvas.frameRate);
  const at = playheadOf(state) - callout.start;
  return movedCallout(callout, handle, on, way, at, frame / 2);
}
