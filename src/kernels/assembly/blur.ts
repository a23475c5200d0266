/*
 * Box blur with running sums, so that its cost does not depend on the radius.
 * Three passes come close to a Gaussian (central limit).
 */
import { store8 } from './arithmetic';

/** Along rows, one row after the other; the outermost sample repeats beyond the edge. */
// @ts-ignore: decorator
@inline
function alongRows(source: usize, stride: i32, target: usize, targetStride: i32, width: i32, height: i32, radius: i32, reciprocal: u32): void {
  for (let y = 0; y < height; y++) {
    const from = source + <usize>(y * stride);
    const to = target + <usize>(y * targetStride);
    const first = <i32>load<u8>(from);
    const last = <i32>load<u8>(from + <usize>(width - 1));
    let sum = first * radius;
    for (let i = 0; i < radius; i++) sum += <i32>load<u8>(from + <usize>min(i, width - 1));
    for (let i = 0; i < width; i++) {
      sum += i + radius < width ? <i32>load<u8>(from + <usize>(i + radius)) : last;
      store<u8>(to + <usize>i, <u8>((<u32>sum * reciprocal + (1 << 21)) >> 22));
      sum -= i - radius >= 0 ? <i32>load<u8>(from + <usize>(i - radius)) : first;
    }
  }
}

/** Down columns, eight beside each other; `sums` holds 32 bytes. */
// @ts-ignore: decorator
@inline
function downColumns(source: usize, stride: i32, target: usize, targetStride: i32, width: i32, height: i32, radius: i32, reciprocal: u32): void {
  const half = i32x4.splat(1 << 21);
  const factor = i32x4.splat(reciprocal);
  let x = 0;
  for (; x + 8 <= width; x += 8) {
    const from = source + <usize>x;
    const to = target + <usize>x;
    // Sums of up to 511 samples need more than 16 bits.
    const first = v128.load_ext<u8>(from);
    let low = i32x4.mul(i32x4.extend_low_i16x8_u(first), i32x4.splat(radius));
    let high = i32x4.mul(i32x4.extend_high_i16x8_u(first), i32x4.splat(radius));
    for (let i = 0; i < radius; i++) {
      const row = v128.load_ext<u8>(from + <usize>(min(i, height - 1) * stride));
      low = i32x4.add(low, i32x4.extend_low_i16x8_u(row));
      high = i32x4.add(high, i32x4.extend_high_i16x8_u(row));
    }
    for (let i = 0; i < height; i++) {
      const entering = v128.load_ext<u8>(from + <usize>(min(i + radius, height - 1) * stride));
      low = i32x4.add(low, i32x4.extend_low_i16x8_u(entering));
      high = i32x4.add(high, i32x4.extend_high_i16x8_u(entering));
      const a = i32x4.shr_u(i32x4.add(i32x4.mul(low, factor), half), 22);
      const b = i32x4.shr_u(i32x4.add(i32x4.mul(high, factor), half), 22);
      store8(to + <usize>(i * targetStride), i16x8.narrow_i32x4_s(a, b));
      const leaving = v128.load_ext<u8>(from + <usize>(max(i - radius, 0) * stride));
      low = i32x4.sub(low, i32x4.extend_low_i16x8_u(leaving));
      high = i32x4.sub(high, i32x4.extend_high_i16x8_u(leaving));
    }
  }
  for (; x < width; x++) {
    const from = source + <usize>x;
    let sum = <i32>load<u8>(from) * radius;
    for (let i = 0; i < radius; i++) sum += <i32>load<u8>(from + <usize>(min(i, height - 1) * stride));
    for (let i = 0; i < height; i++) {
      sum += <i32>load<u8>(from + <usize>(min(i + radius, height - 1) * stride));
      store<u8>(target + <usize>(i * targetStride + x), <u8>((<u32>sum * reciprocal + (1 << 21)) >> 22));
      sum -= <i32>load<u8>(from + <usize>(max(i - radius, 0) * stride));
    }
  }
}

/** Blurs a rectangle of a plane in place. `scratch` holds `width * height` bytes. */
export function boxBlurPlane(plane: usize, stride: i32, width: i32, height: i32, radius: i32, passes: i32, scratch: usize): void {
  if (radius < 1 || width < 1 || height < 1) return;
  const reach = min(radius, 255);
  const reciprocal: u32 = <u32>((1 << 22) / (2 * reach + 1));
  for (let p = 0; p < passes; p++) {
    alongRows(plane, stride, scratch, width, width, height, reach, reciprocal);
    downColumns(scratch, width, plane, stride, width, height, reach, reciprocal);
  }
}

/** Makes each block of `block` by `block` samples its mean; the blocks begin at the upper left corner. */
export function mosaicPlane(plane: usize, stride: i32, width: i32, height: i32, block: i32): void {
  for (let top = 0; top < height; top += block)
    for (let left = 0; left < width; left += block) {
      const right = min(left + block, width);
      const bottom = min(top + block, height);
      let sum: u32 = 0;
      for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) sum += <u32>load<u8>(plane + <usize>(y * stride + x));
      const count = <u32>((right - left) * (bottom - top));
      const mean = <u8>((sum + (count >> 1)) / count);
      for (let y = top; y < bottom; y++) memory.fill(plane + <usize>(y * stride + left), mean, <usize>(right - left));
    }
}
