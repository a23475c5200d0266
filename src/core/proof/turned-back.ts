import type { ScreenView } from '../scene/scene';
import { middleOf, turned } from '../scale/rect';
import type { Luma } from '../vision/luma';

/**
 * What of a picture shows a recording that is seen turned, as it is when it is upright again: each
 * sample is between the four nearest. Samples that the picture does not have repeat its edge.
 *
 * @param screen how the recording is seen in the picture
 * @param upright the same recording as it is before it is turned
 */
export function turnedBack(
  { data, stride, width, height }: Luma,
  screen: Pick<ScreenView, 'turn' | 'stage'>,
  upright: Pick<ScreenView, 'stage'>,
): Luma {
  const size = { width: upright.stage.width, height: upright.stage.height };
  const about = middleOf(screen.stage);
  const across = turned(1, 0, screen.turn);
  const made = new Uint8Array(size.width * size.height);
  for (let v = 0, at = 0; v < size.height; v++) {
    const first = turned(0.5 - size.width / 2, v + 0.5 - size.height / 2, screen.turn);
    let x = about.x + first.x - 0.5;
    let y = about.y + first.y - 0.5;
    for (let u = 0; u < size.width; u++, x += across.x, y += across.y) {
      const [px, py] = [Math.min(Math.max(x, 0), width - 1), Math.min(Math.max(y, 0), height - 1)];
      const [left, top] = [Math.floor(px), Math.floor(py)];
      const [right, below] = [Math.min(left + 1, width - 1), Math.min(top + 1, height - 1)];
      const [fx, fy] = [px - left, py - top];
      const upper = data[top * stride + left]! * (1 - fx) + data[top * stride + right]! * fx;
      const lower = data[below * stride + left]! * (1 - fx) + data[below * stride + right]! * fx;
      made[at++] = Math.round(upper * (1 - fy) + lower * fy);
    }
  }
  return { data: made, stride: size.width, ...size };
}
