import { nanoid } from 'nanoid';
import { alongLines, drawnBetween, linesWithin, type NewShape } from '@/core/callout/draw';
import { UNPOSED } from '@/core/callout/keyframes';
import { kindOf } from '@/core/callout/kinds';
import { pictureAt } from '@/core/callout/kinds/picture';
import { fullySeenFrom } from '@/core/callout/motion';
import { inProjectTheme } from '@/core/edit/theme';
import { pageAt } from '@/core/framing/cuts';
import type { Callout } from '@/core/project/model';
import { footageOf } from '@/core/project/sources';
import type { Rect } from '@/core/scale/rect';
import type { ScreenView } from '@/core/scene/scene';
import type { Point } from '@/core/schema/parts';
import { secondsToTicks, type Ticks } from '@/core/time/ticks';
import type { EditorState } from './session/state';

const CALLOUT_SECONDS = 4;

/** A new callout on a recording; null for what can't be made so. */
export function newCallout(
  { project, sources }: EditorState,
  { footage, view }: ScreenView,
  shape: NewShape,
  at: Point,
  start: Ticks,
): Callout | null {
  const spot = { at, size: footage, frame: project.canvas };
  const still = 'still' in shape ? footageOf(sources, shape.still) : null;
  const made =
    'still' in shape
      ? still && within(view, pictureAt(spot, shape.still, still))
      : kindOf(shape).create?.(spot);
  if (!made) return null;
  return inProjectTheme(project, sources, {
    ...made,
    ...{ id: nanoid(), start, end: start + secondsToTicks(CALLOUT_SECONDS) },
    anchor: { to: 'footage', footageId: footage.id },
    ...UNPOSED,
  } as Callout);
}

/** A picture as far within what is seen as it goes. */
function within<P extends { readonly rect: Rect }>(view: Rect, picture: P): P {
  const { x, y, width, height } = picture.rect;
  const inside = (at: number, length: number, from: number, room: number) =>
    Math.max(from, Math.min(at, from + room - length));
  const place = {
    x: inside(x, width, view.x, view.width),
    y: inside(y, height, view.y, view.height),
  };
  return { ...picture, rect: { ...place, width, height } };
}

/** The lines of text that a marker pen marks; none where nothing was found to be read. */
export function alongText(
  { project, sources }: EditorState,
  callout: Callout & { readonly kind: 'highlight' },
  time: Ticks,
): Partial<Callout> {
  if (callout.anchor.to !== 'footage') return {};
  const page = pageAt(project, sources, callout.anchor.footageId, time);
  const lines = linesWithin(page?.lines ?? [], callout.rect);
  return lines.length ? alongLines(lines) : {};
}

/** A new callout as it is drawn from one point of the recording to another. */
export function drawnCallout(
  state: EditorState,
  screen: ScreenView,
  callout: Callout,
  from: Point,
  to: Point,
): Callout {
  const frame = { dx: (to.x - from.x) * screen.scale, dy: (to.y - from.y) * screen.scale };
  const drawn = { ...callout, ...drawnBetween(callout, from, to, frame) } as Callout;
  if (drawn.kind !== 'highlight') return drawn;
  return { ...drawn, ...alongText(state, drawn, callout.start) } as Callout;
}

/** Adds a callout, selects it, and goes to where all of it is seen. */
export function addCallout(
  state: EditorState,
  callout: Callout,
  seek: (time: Ticks) => void,
): boolean {
  if (!state.apply('add-callout', { callout })) return false;
  state.select({ kind: 'callouts', id: callout.id });
  // It is placed by eye.
  seek(fullySeenFrom(callout, state.project.canvas.frameRate));
  // What is typed next are its words.
  if ('text' in callout) state.set({ typeInto: callout.id });
  return true;
}
