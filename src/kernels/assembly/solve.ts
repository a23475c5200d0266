/*
 * The share of a presenter in pixels along their outline, from the colours on both sides of it.
 */
import { roundByte } from './arithmetic';

/** Cells in which colours are summed up are two to this power samples wide and high, and taken from so many on each side. */
const BITS: i32 = 2;
const REACH: i32 = 2;
/** Opacity from here on, in a sample and all around it, is the presenter's own colour. */
const SURE: i32 = 250;
/** Colours that differ by less than so many code values, squared, tell little about a mixture. */
const TELLING: f32 = 14 * 14;

/** Colours that lie beside the way from one to the other by this much, squared, are half as sure to be a mixture. */
const BESIDE: f32 = 24 * 24;

/** Bytes of scratch memory that `solveAlpha` needs. */
export function solveRoom(width: i32, height: i32): i32 {
  const cells = ((width + 6) >> BITS) * ((height + 6) >> BITS);
  return cells * 4 * 4 * 2;
}

/**
 * Opacity of samples that are neither clear nor opaque, or beside such: where a sample's colour lies on the way from the wall's to the
 * presenter's own around it, by the length of its projection on that way. All planes are `width` by `height` and lie without gaps; luma
 * counts `light` times as much as it would in RGB. What has no opaque sample nearby, and whose colours on both sides are alike, stays.
 * `left` and `top`, 0 to 3, say where in a cell the first sample lies, so that a part of a picture has the cells of the whole.
 */
export function solveAlpha(
  y: usize, u: usize, v: usize, wallY: usize, wallU: usize, wallV: usize, alpha: usize, width: i32, height: i32, left: i32, top: i32, light: f32, scratch: usize,
): void {
  const across = (width + left + 3) >> BITS;
  const down = (height + top + 3) >> BITS;
  const plane = <usize>(across * down) << 4;
  const sums = scratch;
  const wide = scratch + plane;
  memory.fill(sums, 0, plane);
  for (let row = 1; row < height - 1; row++)
    for (let x = 1; x < width - 1; x++) {
      const at = <usize>(row * width + x);
      if (<i32>load<u8>(alpha + at) < SURE || !sureAround(alpha + at, width)) continue;
      const cell = sums + (<usize>(((row + top) >> BITS) * across + ((x + left) >> BITS)) << 4);
      store<f32>(cell, load<f32>(cell) + 1);
      store<f32>(cell, load<f32>(cell, 4) + <f32>load<u8>(y + at), 4);
      store<f32>(cell, load<f32>(cell, 8) + <f32>load<u8>(u + at), 8);
      store<f32>(cell, load<f32>(cell, 12) + <f32>load<u8>(v + at), 12);
    }
  // Sums along rows, then down columns; four numbers of a cell at once.
  for (let row = 0; row < down; row++)
    for (let x = 0; x < across; x++) {
      let sum = f32x4.splat(0);
      for (let k = max(0, x - REACH); k <= min(across - 1, x + REACH); k++) sum = f32x4.add(sum, v128.load(sums + (<usize>(row * across + k) << 4)));
      v128.store(wide + (<usize>(row * across + x) << 4), sum);
    }
  for (let row = 0; row < down; row++)
    for (let x = 0; x < across; x++) {
      let sum = f32x4.splat(0);
      for (let k = max(0, row - REACH); k <= min(down - 1, row + REACH); k++) sum = f32x4.add(sum, v128.load(wide + (<usize>(k * across + x) << 4)));
      v128.store(sums + (<usize>(row * across + x) << 4), sum);
    }
  for (let row = 0; row < height; row++)
    for (let x = 0; x < width; x++) {
      const at = <usize>(row * width + x);
      const own = <i32>load<u8>(alpha + at);
      if (own == 0 || own == 255) continue;
      const cell = sums + (<usize>(((row + top) >> BITS) * across + ((x + left) >> BITS)) << 4);
      const count = load<f32>(cell);
      if (count < 1) continue;
      const by: f32 = 1 / count;
      const wy: f32 = <f32>load<u8>(wallY + at);
      const wu: f32 = <f32>load<u8>(wallU + at);
      const wv: f32 = <f32>load<u8>(wallV + at);
      // Colour differences span about half of what luma does for the same difference of colour.
      const fy: f32 = (load<f32>(cell, 4) * by - wy) * light;
      const fu: f32 = (load<f32>(cell, 8) * by - wu) * 2;
      const fv: f32 = (load<f32>(cell, 12) * by - wv) * 2;
      const length = fy * fy + fu * fu + fv * fv;
      const dy: f32 = (<f32>load<u8>(y + at) - wy) * light;
      const du: f32 = (<f32>load<u8>(u + at) - wu) * 2;
      const dv: f32 = (<f32>load<u8>(v + at) - wv) * 2;
      const share = min<f32>(1, max<f32>(0, (dy * fy + du * fu + dv * fv) / max<f32>(1, length)));
      // What lies beside that way is no mixture of the two: an eye, a dark strand on skin.
      const ey = dy - share * fy;
      const eu = du - share * fu;
      const ev = dv - share * fv;
      const off = ey * ey + eu * eu + ev * ev;
      const told = (length / (length + TELLING)) * (BESIDE / (BESIDE + off));
      store<u8>(alpha + at, roundByte(told * share * 255 + (1 - told) * <f32>own));
    }
}

// @ts-ignore: decorator
@inline
function sureAround(at: usize, width: i32): bool {
  const above = at - <usize>width;
  const below = at + <usize>width;
  return (
    <i32>load<u8>(at - 1) >= SURE && <i32>load<u8>(at + 1) >= SURE && <i32>load<u8>(above) >= SURE && <i32>load<u8>(below) >= SURE &&
    <i32>load<u8>(above - 1) >= SURE && <i32>load<u8>(above + 1) >= SURE && <i32>load<u8>(below - 1) >= SURE && <i32>load<u8>(below + 1) >= SURE
  );
}
