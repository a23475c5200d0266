import { movesAll } from '@/core/callout/moved';
import { kindOf } from '@/core/callout/kinds';
import { wayOut } from '@/core/callout/way-out';
import { calloutScene } from '@/core/frame/callout-layers';
import type { Callout } from '@/core/project/model';
import { padded } from '@/core/scale/rect';
import { frontmost, presenterOf, sceneAt } from '@/core/scene/scene';
import type { Ticks } from '@/core/time/ticks';
import { moveCallout } from './picture/move-callout';
import { placeOfCallout } from './picture/place-in-frame';
import type { EditorState } from './session/state';

/** So far from the presenter, as a share of the frame's height. */
const APART = 0.01;

/**
 * A new callout where the presenter does not lie over it, as near as that goes to where it is; of
 * words, what they point at stays. What hides or dims lies where it is meant to.
 */
export function clearOfPresenter(state: EditorState, callout: Callout, time: Ticks): Callout {
  if (kindOf(callout).level === 'cover' || callout.kind === 'spotlight') return callout;
  const { project, sources } = state;
  const scene = sceneAt(project, sources, time);
  const shown = frontmost(scene, 'presenter');
  const presenter = shown && presenterOf(scene, shown);
  const on = calloutScene(scene, callout);
  if (!presenter || !on) return callout;
  const { destination } = presenter.place;
  const around = padded(destination, APART * project.canvas.height);
  const way = wayOut(placeOfCallout(callout, on), around, project.canvas);
  if (!way) return callout;
  const words = kindOf(callout)
    .handles(callout)
    .find((handle) => handle.look === 'words' && movesAll(handle));
  return { ...callout, ...moveCallout(state, callout, words ?? null, on, way) } as Callout;
}
