import type { Framing } from '../project/model';
import { snapRestingView, wholeView } from '../scale/sharpness';
import type { InFootage, Size } from '../scale/rect';
import type { Ticks } from '../time/ticks';
import { ease, glide, keepInside, viewAlongPath } from './path';
import { turnThatFits } from './turn';

export interface View {
  readonly rect: InFootage;
  /** Degrees by which it is seen turned, clockwise; 0 wherever beyond the recording would be seen. */
  readonly turn: number;
  /** In the middle of a ramp, or slowly going on. */
  readonly moving: boolean;
}

/** A difference of shape that comes of whole pixels alone. */
const SAME_SHAPE = 0.01;

/**
 * A framing's rectangle in the shape of what it is shown in: framings have the picture's shape,
 * while a layout may give the screen a box of another, which then shows more around it, of the
 * recording as long as there is any.
 */
function shaped(rect: InFootage, frame: Size, footage: Size | InFootage): InFootage {
  const difference = (rect.width * frame.height) / (rect.height * frame.width) - 1;
  if (Math.abs(difference) < SAME_SHAPE) return rect;
  const area = 'x' in footage ? footage : { x: 0, y: 0, ...footage };
  const around = wholeView(rect, frame);
  const width = Math.max(area.width, around.width);
  const height = Math.max(area.height, around.height);
  return keepInside(around, {
    ...{ width, x: area.x + (area.width - width) / 2 },
    ...{ height, y: area.y + (area.height - height) / 2 },
  });
}

/**
 * What of a recording is seen at an instant. Framings that touch go over from one to the next
 * without a look at the whole in between. One with a second rectangle slowly goes there while it
 * rests.
 *
 * @param framings of the project, in order; those of other footage are passed over
 * @param footage size of the recording, or the area of it that counts as the whole
 * @param frame size in frame pixels of what the recording is shown in
 * @param gliding whether that is on its way to another size
 */
export function viewAt(
  framings: readonly Framing[],
  footageId: string,
  footage: Size | InFootage,
  frame: Size,
  time: Ticks,
  gliding = false,
): View {
  const whole = wholeView(footage, frame);
  const area = 'x' in footage ? footage : { x: 0, y: 0, ...footage };
  const viewOf = (rect: InFootage, turn: number, moving: boolean): View => ({
    ...{ rect, turn: turnThatFits(rect, area, turn), moving },
  });
  // Brought onto the pixels of a frame that changes its size, it would tremble.
  const rest = (rect: InFootage, turn: number): View =>
    gliding ? viewOf(rect, turn, true) : viewOf(snapRestingView(rect, frame), turn, false);
  const rectOf = (f: Framing) => shaped(f.rect, frame, footage);
  const lastOf = (f: Framing) => shaped(f.endRect ?? f.rect, frame, footage);
  const index = framings.findIndex(
    (f) => f.footageId === footageId && time >= f.start && time < f.end,
  );
  if (index < 0) return rest(whole, 0);
  const framing = framings[index]!;
  const before = framings[index - 1];
  const after = framings[index + 1];
  const joins = (a: Framing | undefined, b: Framing | undefined) =>
    !!a && !!b && a.end === b.start && a.footageId === b.footageId;
  const { start, end, rampIn, rampOut, turn = 0 } = framing;
  const goesBack = !joins(framing, after);
  if (time < start + rampIn) {
    const joined = joins(before, framing);
    const [from, turned] = joined ? [lastOf(before!), before!.turn ?? 0] : [whole, 0];
    const u = ease((time - start) / rampIn);
    const rect = viewAlongPath(from, rectOf(framing), u, whole);
    return viewOf(rect, turned + (turn - turned) * u, true);
  }
  if (goesBack && time >= end - rampOut) {
    const u = ease((time - (end - rampOut)) / rampOut);
    return viewOf(viewAlongPath(lastOf(framing), whole, u, whole), turn * (1 - u), u > 0);
  }
  if (framing.endRect) {
    const length = end - (goesBack ? rampOut : 0) - (start + rampIn);
    const u = glide((time - start - rampIn) / length);
    return viewOf(viewAlongPath(rectOf(framing), lastOf(framing), u, whole), turn, true);
  }
  return rest(rectOf(framing), turn);
}
