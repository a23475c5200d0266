import type { Framing } from '../project/model';
import { snapRestingView, wholeView } from '../scale/sharpness';
import type { InFootage, Size } from '../scale/rect';
import type { Ticks } from '../time/ticks';
import { ease, viewAlongPath } from './path';

export interface View {
  readonly rect: InFootage;
  /** In the middle of a ramp. */
  readonly moving: boolean;
}

/**
 * What of a recording is seen at an instant. Framings that touch go over from
 * one to the next without a look at the whole in between.
 *
 * @param framings of the project, in order; those of other footage are passed over
 * @param footage size of the recording, or the area of it that counts as the whole
 */
export function viewAt(
  framings: readonly Framing[],
  footageId: string,
  footage: Size | InFootage,
  frame: Size,
  time: Ticks,
): View {
  const whole = wholeView(footage, frame);
  const index = framings.findIndex(
    (f) => f.footageId === footageId && time >= f.start && time < f.end,
  );
  if (index < 0) return { rect: snapRestingView(whole, frame), moving: false };
  const framing = framings[index]!;
  const before = framings[index - 1];
  const after = framings[index + 1];
  const joins = (a: Framing | undefined, b: Framing | undefined) =>
    !!a && !!b && a.end === b.start && a.footageId === b.footageId;
  if (time < framing.start + framing.rampIn) {
    const from = joins(before, framing) ? before!.rect : whole;
    const u = ease((time - framing.start) / framing.rampIn);
    return { rect: viewAlongPath(from, framing.rect, u, whole), moving: true };
  }
  if (time >= framing.end - framing.rampOut && !joins(framing, after)) {
    const u = ease((time - (framing.end - framing.rampOut)) / framing.rampOut);
    return { rect: viewAlongPath(framing.rect, whole, u, whole), moving: u > 0 };
  }
  return { rect: snapRestingView(framing.rect, frame), moving: false };
}
