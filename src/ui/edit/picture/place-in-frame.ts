import type { CalloutScene, Handle } from '@/core/callout/kind';
import { kindOf } from '@/core/callout/kinds';
import type { Callout } from '@/core/project/model';
import type { Rect } from '@/core/scale/rect';
import { shownPlace } from './shown-place';

/** Where the part of a callout is that a handle moves, in frame pixels; a spot has no size. */
export function placeOfHandle(
  callout: Callout,
  { look, at, shift, size }: Handle,
  on: CalloutScene,
) {
  const shown = look === 'words' ? shownPlace(callout, on) : null;
  if (shown) return { x: shown.x, y: shown.y, width: shown.width, height: shown.height };
  const { x, y } = on.toOutput(at);
  return {
    ...{ x: x + shift.dx, y: y + shift.dy },
    ...{ width: (size?.width ?? 0) * on.scale, height: (size?.height ?? 0) * on.scale },
  };
}

/** Where a callout stands in the Picture, in frame pixels: its words, its area, or its spot. */
export function placeOfCallout(callout: Callout, on: CalloutScene): Rect {
  const handles = kindOf(callout).handles(callout);
  const large = handles.find(({ look }) => look === 'words') ?? handles.find(({ size }) => size);
  return placeOfHandle(callout, large ?? handles[0]!, on);
}
