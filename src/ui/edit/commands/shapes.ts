import type { NewShape } from '@/core/callout/draw';
import type { Ticks } from '@/core/time/ticks';
import { clearOfPresenter } from '../clear-of-presenter';
import { addCallout, newCallout } from '../new-callout';
import type { CommandContext } from './context';
import { spotHere } from './framings';

/**
 * Adds a callout where the pointer is at the playhead, but not under the presenter, or has it drawn
 * on the Picture.
 */
export function addShape(
  c: CommandContext,
  shape: NewShape,
  seek: (time: Ticks) => void = (time) => c.seek(time),
): void {
  const screen = c.screenHere();
  if (!screen) return;
  const { state } = c;
  if (state.drawsShapes) {
    state.select(null);
    return state.set({ drawing: shape });
  }
  const made = newCallout(state, screen, shape, spotHere(c, screen), c.here);
  if (made) addCallout(state, clearOfPresenter(state, made, c.here), seek);
}
