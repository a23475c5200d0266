import type { Size } from '../scale/rect';

/** The luma of a picture, row by row; rows begin `stride` samples after each other. */
export interface Luma extends Size {
  readonly data: Uint8Array;
  readonly stride: number;
}

/** Pictures are compared by squares of this side. */
export const TILE = 16;

/** Samples that differ by more than this have changed; codecs alter what stands still by less. */
export const LEAST_CHANGE = 14;

/** How many tiles a picture has, the last ones smaller. */
export const tilesOf = ({ width, height }: Size) => ({
  across: Math.ceil(width / TILE),
  down: Math.ceil(height / TILE),
});

/** A cut-out of a picture; what lies beyond its edges repeats them. Answers its samples by rows. */
export function cutOut(
  { data, stride, width, height }: Luma,
  x: number,
  y: number,
  w: number,
  h: number,
): Uint8Array {
  const cut = new Uint8Array(w * h);
  for (let row = 0, at = 0; row < h; row++) {
    const line = Math.min(Math.max(y + row, 0), height - 1) * stride;
    for (let column = 0; column < w; column++)
      cut[at++] = data[line + Math.min(Math.max(x + column, 0), width - 1)]!;
  }
  return cut;
}
