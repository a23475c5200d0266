/** Red, green and blue, 0 to 255. */
export type Rgb = readonly [r: number, g: number, b: number];
/** Luma and the two colour differences in 8-bit BT.709 limited range. */
export type Yuv = readonly [y: number, u: number, v: number];

/**
 * Reads `#rrggbb`.
 * @throws RangeError for anything else.
 */
export function parseColor(hex: string): Rgb {
  if (!/^#[0-9a-f]{6}$/i.test(hex))
    throw new RangeError(`"${hex}" is not a colour of the form #rrggbb.`);
  const n = parseInt(hex.slice(1), 16);
  return [n >> 16, (n >> 8) & 255, n & 255];
}

const clampByte = (n: number) => Math.min(255, Math.max(0, Math.round(n)));

/** `#rrggbb` of a colour. */
export const formatColor = ([r, g, b]: Rgb): string =>
  `#${((1 << 24) | (clampByte(r) << 16) | (clampByte(g) << 8) | clampByte(b)).toString(16).slice(1)}`;

/** RGB to YCbCr by ITU-R BT.709, 8-bit limited range (16 to 235, 16 to 240). */
export function rgbToYuv([r, g, b]: Rgb): Yuv {
  const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return [
    clampByte(16 + (luma * 219) / 255),
    clampByte(128 + ((b - luma) / 1.8556) * (224 / 255)),
    clampByte(128 + ((r - luma) / 1.5748) * (224 / 255)),
  ];
}

/** The inverse of `rgbToYuv`, to within rounding. */
export function yuvToRgb([y, u, v]: Yuv): Rgb {
  const luma = ((y - 16) * 255) / 219;
  const cb = ((u - 128) * 255) / 224;
  const cr = ((v - 128) * 255) / 224;
  const r = luma + 1.5748 * cr;
  const b = luma + 1.8556 * cb;
  return [clampByte(r), clampByte((luma - 0.2126 * r - 0.0722 * b) / 0.7152), clampByte(b)];
}
