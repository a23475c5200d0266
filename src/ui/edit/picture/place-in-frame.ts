import type { CalloutScene, Handle } from '@/core/callout/kind';
import { kindOf } from '@/core/callout/kinds';
import type { Callout } from '@/core/project/model';
import { cornersOf, rectAround, turned, turnedAbout, type Rect } from '@/core/scale/rect';
import type { Point } from '@/core/schema/parts';
import { shownPlace } from './shown-place';

/** Where the part of a callout is that a handle moves, in frame pixels; a spot has no size. */
export function placeOfHandle(
  callout: Callout,
  { look, at, shift, size }: Handle,
  on: CalloutScene,
) {
  const shown = look === 'words' ? shownPlace(callout, on) : null;
  if (shown) return boundsTurned(shown.box, shown.about, on.turn);
  const from = shiftedOutput(on, at, shift);
  const box = {
    ...from,
    ...{ width: (size?.width ?? 0) * on.scale, height: (size?.height ?? 0) * on.scale },
  };
  return boundsTurned(box, from, on.turn);
}

/** Where a spot of a callout is in the Picture, with a way from there in its own frame pixels. */
export function shiftedOutput(on: CalloutScene, at: Point, { dx, dy }: Handle['shift']): Point {
  const { x, y } = on.toOutput(at);
  const way = turned(dx * on.ratio, dy * on.ratio, on.turn);
  return { x: x + way.x, y: y + way.y };
}

/** The rectangle around another that is turned about a point. */
function boundsTurned(box: Rect, about: Point, degrees: number): Rect {
  const { x, y, width, height } = box;
  if (!degrees) return { x, y, width, height };
  return rectAround(cornersOf(box).map((corner) => turnedAbout(corner, about, degrees)));
}

/** Where a callout stands in the Picture, in frame pixels: its words, its area, or its spot. */
export function placeOfCallout(callout: Callout, on: CalloutScene): Rect {
  const handles = kindOf(callout).handles(callout);
  const large = handles.find(({ look }) => look === 'words') ?? handles.find(({ size }) => size);
  return placeOfHandle(callout, large ?? handles[0]!, on);
}
