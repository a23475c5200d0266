import type { Mask } from '../layout/mask';
import { outset } from '../layout/own-shape';
import type { PresenterPlace } from '../layout/rectangles';
import type { InOutput, Size } from '../scale/rect';
import type { OutlineMark } from './mark';
import type { DrawingLayer } from './plan';

/** How soft a shadow is and how far below it lies, as shares of the picture's height. */
const SOFT = 0.05;
const BELOW = 0.008;

type Outline = Pick<OutlineMark, 'shape' | 'radius' | 'points'>;

/** The outline that a mask leaves of a box, drawn so many pixels further out. */
function shapeOf(mask: Mask | null, away = 0): Outline {
  switch (mask?.shape) {
    case undefined:
      return { shape: 'rectangle', radius: 0 };
    case 'rounded':
      return { shape: 'rounded', radius: mask.radius > 0 ? mask.radius + away : 0 };
    case 'path': {
      const points = outset(mask.points, away).map(({ x, y }) => ({ x: x + away, y: y + away }));
      return { shape: 'path', radius: 0, points: points as OutlineMark['points'] };
    }
    default:
      return { shape: mask!.shape, radius: 0 };
  }
}

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
  const around = {
    ...{ x: box.x - away, y: box.y - away },
    ...{ width: box.width + 2 * away, height: box.height + 2 * away },
  };
  const mark: OutlineMark = {
    ...{ kind: 'outline', ...shapeOf(mask, away) },
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
