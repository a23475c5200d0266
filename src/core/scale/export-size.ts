import type { Size } from './rect';

/** How an export's size relates to what is scaled into it. */
export interface ExportScale {
  /** Output pixels for one pixel of the project's picture. */
  readonly scale: number;
  /**
   * Whether that is a whole number or one part of a whole: then what is pixel for pixel in the
   * project stays on whole pixels.
   */
  readonly whole: boolean;
}

/** The smallest and the largest side of an export in pixels. */
export const LEAST_SIDE = 16;
export const MOST_SIDE = 7680;
const isWhole = (n: number) => Math.abs(n - Math.round(n)) < 1e-6;

/** How much larger or smaller an export is than the project. */
export function exportScale(size: Size, canvas: Size): ExportScale {
  const scale = Math.min(size.width / canvas.width, size.height / canvas.height);
  return { scale, whole: isWhole(scale) || isWhole(1 / scale) };
}

/**
 * Sizes of a project's shape that keep whole pixels, largest first: twice, the same, a half, a
 * third; even sides only.
 */
export function wholeSizes(canvas: Size): Size[] {
  return [2, 1, 1 / 2, 1 / 3]
    .map((scale) => ({ width: canvas.width * scale, height: canvas.height * scale }))
    .filter(
      ({ width, height }) =>
        isWhole(width / 2) &&
        isWhole(height / 2) &&
        Math.min(width, height) >= LEAST_SIDE &&
        Math.max(width, height) <= MOST_SIDE,
    )
    .map(({ width, height }) => ({ width: Math.round(width), height: Math.round(height) }));
}

/**
 * The size nearest to a share of a picture with even sides, none of them shorter or longer than an
 * export's may be.
 */
export const evenSize = ({ width, height }: Size, scale: number): Size => {
  const most = MOST_SIDE / Math.max(width, height);
  const side = (length: number) =>
    Math.max(LEAST_SIDE, Math.round((length * Math.min(scale, most)) / 2) * 2);
  return { width: side(width), height: side(height) };
};

/** The size of a picture's shape that is so wide, as nearly as even sides allow. */
export const sizeOfWidth = (own: Size, width: number): Size =>
  evenSize(own, (Math.round(width / 2) * 2) / own.width);
