import type { FootageRect } from '../../schema/parts';
import { shifted, type Handle, type Move, type Spot } from '../kind';

/*
 * What kinds have in common that are a rectangle: it is moved, and its lower right corner is pulled.
 */
const LEAST_SIDE = 8;

/** A new rectangle in the middle of a spot, its sides as shares of what it stands on. */
export const areaAt = ({ at, size }: Spot, width: number, height: number): FootageRect => ({
  x: at.x - (size.width * width) / 2,
  y: at.y - (size.height * height) / 2,
  width: size.width * width,
  height: size.height * height,
});

/** The handles of a rectangle. */
export const areaHandles = ({ x, y, width, height }: FootageRect, label: string): Handle[] => [
  {
    id: 'area',
    label,
    look: 'area',
    at: { x, y },
    shift: { dx: 0, dy: 0 },
    size: { width, height },
  },
  {
    id: 'corner',
    label: 'Size',
    look: 'corner',
    at: { x: x + width, y: y + height },
    shift: { dx: 0, dy: 0 },
    size: null,
  },
];

/** What becomes of a rectangle when one of its handles is moved. */
export const withAreaHandle = (rect: FootageRect, id: string, { by }: Move): FootageRect =>
  id === 'corner'
    ? {
        ...rect,
        width: Math.max(LEAST_SIDE, rect.width + by.dx),
        height: Math.max(LEAST_SIDE, rect.height + by.dy),
      }
    : { ...rect, ...shifted(rect, by) };
