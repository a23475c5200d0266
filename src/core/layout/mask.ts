/** A squircle is a superellipse of this power: |x|ⁿ + |y|ⁿ = 1. */
export const SQUIRCLE_POWER = 4;

/**
 * What of a layer's destination is seen; `feather` is the width of the soft edge inside of it,
 * output pixels.
 */
export type Mask = { readonly feather: number } & (
  | { readonly shape: 'ellipse' | 'rectangle' | 'squircle' }
  | { readonly shape: 'rounded'; readonly radius: number }
  /** Corners of a closed path in output pixels from the destination's upper left corner. */
  | {
      readonly shape: 'path';
      readonly points: readonly { readonly x: number; readonly y: number }[];
    }
);
