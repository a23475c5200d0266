import type { Mask } from '../layout/mask';
import type { PresenterPlace } from '../layout/rectangles';
import type { InOutput, Size } from '../scale/rect';
import type { OutlineMark } from './mark';
import type { DrawingLayer } from './plan';

/** How soft a shadow is and how far below it lies, as shares of the picture's height. */
const SOFT = 0.05;
const BELOW = 0.008;

/** The outline that a mask leaves of a box. */
const shapeOf = (mask: Mask | null): Pick<OutlineMark, 'shape' | 'radius'> => ({
  shape: !mask || mask.shape === 'path' ? 'rectangle' : mask.shape,
  radius: mask?.shape === 'rounded' ? mask.radius : 0,
});

const drawing = (mark: OutlineMark, opacity: number): DrawingLayer => ({
  ...{ kind: 'drawing', mark, opacity, blend: 'normal' },
});

/** The coloured edge of a screen or presenter, in a list that is empty where there is none. */
export function ringOf(
  box: InOutput,
  mask: Mask | null,
  ring: PresenterPlace['ring'],
  ratio: number,
): DrawingLayer[] {
  if (!ring) return [];
  const { width, color, second = null, gap = 0 } = ring;
  // On whole even pixels, as the box is; the ring stands beyond the gap with all of its width.
  const away = gap > 0 ? Math.round((gap + width / 2) * ratio * 0.5) * 2 : 0;
  const { shape, radius } = shapeOf(mask);
  const around = {
    ...{ x: box.x - away, y: box.y - away },
    ...{ width: box.width + 2 * away, height: box.height + 2 * away },
  };
  const mark: OutlineMark = {
    ...{ kind: 'outline', shape, radius: radius > 0 ? radius + away : 0 },
    ...{ box: around, fill: null, stroke: { width: width * ratio, color, second } },
  };
  return [drawing(mark, 1)];
}

/** The shadow behind a screen or presenter, in a list that is empty where there is none. */
export function shadowOf(
  box: InOutput,
  mask: Mask | null,
  dark: number,
  output: Size,
): DrawingLayer[] {
  if (dark <= 0) return [];
  const below = Math.round((BELOW * output.height) / 2) * 2;
  const mark: OutlineMark = {
    ...{ kind: 'outline', ...shapeOf(mask), box: { ...box, y: box.y + below } },
    ...{ fill: '#000000', stroke: null, soft: SOFT * output.height },
  };
  return [drawing(mark, dark)];
}
