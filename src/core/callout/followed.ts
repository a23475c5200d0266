import { intersect, type Rect, type Size } from '../scale/rect';
import type { Pose } from './keyframes';
import { shifted, WHOLE } from './kind';
import { kindOf } from './kinds';
import type { Callout } from './model';
import { shiftedPoint, type Shift } from './follow-path';

/** What a callout points at is told by so much around it, as shares of the recording's height. */
const AROUND = { width: 0.16, height: 0.06 };

/**
 * What of a recording a callout marks, in its pixels: the area that it has, or what lies around the
 * spot that it points at, within the recording.
 *
 * @param pose that it has then
 */
export function markedBy(callout: Callout, size: Size, pose: Pose): Rect {
  const handles = kindOf(callout).handles(callout);
  const point = handles.find(({ look }) => look === 'point');
  const area = handles.find((handle) => handle.look === 'area' && handle.size);
  const whole = { x: 0, y: 0, width: size.width, height: size.height };
  if (area?.size && !('tip' in callout))
    return intersect(inPose({ ...area.at, ...area.size }, pose), whole);
  const at = shifted(point?.at ?? handles[0]!.at, pose);
  const [width, height] = [size.height * AROUND.width, size.height * AROUND.height];
  return intersect({ x: at.x - width / 2, y: at.y - height / 2, width, height }, whole);
}

/** A rectangle as it lies in a pose, upright. */
function inPose({ x, y, width, height }: Rect, { dx, dy, size }: Pose): Rect {
  const [w, h] = [width * size, height * size];
  return { x: x + dx + (width - w) / 2, y: y + dy + (height - h) / 2, width: w, height: h };
}

/**
 * What of a callout changes when it is put where its content went: an area becomes as large as that,
 * all else moves, by how far its first handle went.
 */
export function putAt(callout: Callout, shift: Shift): Partial<Callout> {
  if ('rect' in callout) {
    const { rect } = callout;
    const [width, height] = [rect.width * shift.scale, rect.height * shift.scale];
    return { rect: { ...shiftedPoint(rect, shift), width, height } };
  }
  const kind = kindOf(callout);
  const { at } = kind.handles(callout)[0]!;
  const to = shiftedPoint(at, shift);
  const by = { dx: to.x - at.x, dy: to.y - at.y };
  return kind.withHandle(callout, WHOLE, { by, frame: { dx: 0, dy: 0 } }) as Partial<Callout>;
}
