import type { InOutput, Size } from '../scale/rect';
import { readNumberSetting } from '../schema/setting';
import { PresenterPlacement } from './placement';

const { size: SIZE, margin: MARGIN } = PresenterPlacement.properties;

/** A value on the steps of its setting, within its bounds. */
function settled(schema: typeof SIZE, value: number): number {
  const { min, max, step } = readNumberSetting(schema);
  const steps = Math.round(value / step);
  // Without the remains of binary fractions.
  return Math.min(max, Math.max(min, Number((steps * step).toFixed(6))));
}

/**
 * Where the presenter stands after their inset was moved: in the corner that its middle is nearest
 * to, as far from the edges as the nearer one.
 *
 * @param box the inset where it was moved to, in frame pixels
 * @param frame size of the picture in frame pixels
 */
export function movedInset(
  box: InOutput,
  frame: Size,
): Pick<PresenterPlacement, 'corner' | 'margin'> {
  const left = box.x + box.width / 2 < frame.width / 2;
  const top = box.y + box.height / 2 < frame.height / 2;
  const across = left ? box.x : frame.width - box.x - box.width;
  const down = top ? box.y : frame.height - box.y - box.height;
  return {
    corner: `${top ? 'top' : 'bottom'}-${left ? 'left' : 'right'}`,
    margin: settled(MARGIN, Math.min(across, down) / frame.height),
  };
}

/**
 * The size of the presenter's inset for a height in frame pixels.
 *
 * @param frame size of the picture in frame pixels
 */
export const sizedInset = (height: number, frame: Size): Pick<PresenterPlacement, 'size'> => ({
  size: settled(SIZE, height / frame.height),
});
