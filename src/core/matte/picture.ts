/**
 * A small picture of a recording: luma and both colour differences in 8-bit code values, all of one
 * size, row by row.
 */
export interface SmallPicture {
  readonly width: number;
  readonly height: number;
  readonly y: Uint8Array;
  readonly u: Uint8Array;
  readonly v: Uint8Array;
}

/** The three planes of a picture by their names. */
export const PLANES = ['y', 'u', 'v'] as const;

/** A picture whose planes lie one after the other in a run of bytes. */
export function pictureIn(bytes: Uint8Array, width: number, height: number): SmallPicture {
  const count = width * height;
  const plane = (i: number) => bytes.subarray(i * count, (i + 1) * count);
  return { width, height, y: plane(0), u: plane(1), v: plane(2) };
}

/** Longest side of the pictures that a matte is worked out from, in pixels. */
const LONGEST = 480;

/**
 * The size at which the matte of a recording is worked out, in pixels: its own shape, at most 480
 * long, sides even.
 */
export function matteSize({ width, height }: { width: number; height: number }): {
  width: number;
  height: number;
} {
  const scale = Math.min(1, LONGEST / Math.max(width, height));
  const even = (n: number) => Math.max(2, Math.round((n * scale) / 2) * 2);
  return { width: even(width), height: even(height) };
}
