/*
 * Box blur with running sums, so that its cost does not depend on the radius.
 * Three passes come close to a Gaussian (central limit). Eight rows, then eight columns are done beside each other: lines of eight
 * 16-bit values.
 */
import { store8 } from './arithmetic';
import { BAND, storeColumns, transpose } from './turn';

/** Bits of fraction of the reciprocal that sums are multiplied by. */
const FRACTION: i32 = 22;

/** One pass along a line of `length` places; the outermost ones repeat beyond the ends. */
// @ts-ignore: decorator
@inline
function boxAlong(from: usize, to: usize, length: i32, radius: i32, reciprocal: i32): void {
  const half = i32x4.splat(1 << (FRACTION - 1));
  const factor = i32x4.splat(reciprocal);
  const last = length - 1;
  // Sums of up to 511 samples need more than 16 bits.
  const first = v128.load(from);
  let low = i32x4.mul(i32x4.extend_low_i16x8_u(first), i32x4.splat(radius));
  let high = i32x4.mul(i32x4.extend_high_i16x8_u(first), i32x4.splat(radius));
  for (let i = 0; i < radius; i++) {
    const place = v128.load(from + (<usize>min(i, last) << 4));
    low = i32x4.add(low, i32x4.extend_low_i16x8_u(place));
    high = i32x4.add(high, i32x4.extend_high_i16x8_u(place));
  }
  for (let i = 0; i < length; i++) {
    const entering = v128.load(from + (<usize>min(i + radius, last) << 4));
    low = i32x4.add(low, i32x4.extend_low_i16x8_u(entering));
    high = i32x4.add(high, i32x4.extend_high_i16x8_u(entering));
    const a = i32x4.shr_u(i32x4.add(i32x4.mul(low, factor), half), FRACTION);
    const b = i32x4.shr_u(i32x4.add(i32x4.mul(high, factor), half), FRACTION);
    v128.store(to + (<usize>i << 4), i16x8.narrow_i32x4_s(a, b));
    const leaving = v128.load(from + (<usize>max(i - radius, 0) << 4));
    low = i32x4.sub(low, i32x4.extend_low_i16x8_u(leaving));
    high = i32x4.sub(high, i32x4.extend_high_i16x8_u(leaving));
  }
}

/** All passes along the line at `line`, with another of its length at `spare`; answers which of them holds what comes out. */
// @ts-ignore: decorator
@inline
function boxPasses(line: usize, spare: usize, length: i32, radius: i32, passes: i32): usize {
  const reciprocal = (1 << FRACTION) / (2 * radius + 1);
  let from = line;
  let to = spare;
  for (let p = 0; p < passes; p++) {
    boxAlong(from, to, length, radius, reciprocal);
    const other = from;
    from = to;
    to = other;
  }
  return from;
}

/** Blurs along rows, eight beside each other. */
// @ts-ignore: decorator
@inline
function alongRows(plane: usize, stride: i32, width: i32, height: i32, radius: i32, passes: i32, rows: usize, line: usize, spare: usize): void {
  const rowBytes = <usize>(((width + 7) & ~7) << 1);
  for (let y = 0; y < height; y += BAND) {
    const count = min(BAND, height - y);
    const at = plane + <usize>(y * stride);
    for (let r = 0; r < count; r++)
      for (let x = 0; x < width; x += 8)
        v128.store(rows + <usize>r * rowBytes + <usize>(x << 1), v128.load_ext<u8>(at + <usize>(r * stride + x)));
    transpose(rows, rowBytes, width, line);
    const done = boxPasses(line, spare, width, radius, passes);
    let x = 0;
    for (; x + 8 <= width; x += 8) storeLine(done + (<usize>x << 4), at + <usize>x, <usize>stride, count);
    if (x < width) {
      storeLine(done + (<usize>x << 4), rows, BAND, BAND);
      for (let r = 0; r < count; r++) memory.copy(at + <usize>(r * stride + x), rows + <usize>(r * BAND), <usize>(width - x));
    }
  }
}

// @ts-ignore: decorator
@inline
function storeLine(line: usize, out: usize, stride: usize, rows: i32): void {
  storeColumns(
    v128.load(line), v128.load(line, 16), v128.load(line, 32), v128.load(line, 48),
    v128.load(line, 64), v128.load(line, 80), v128.load(line, 96), v128.load(line, 112),
    out, stride, rows,
  );
}

/** Blurs down columns, eight beside each other. */
// @ts-ignore: decorator
@inline
function downColumns(plane: usize, stride: i32, width: i32, height: i32, radius: i32, passes: i32, rows: usize, line: usize, spare: usize): void {
  for (let x = 0; x < width; x += 8) {
    const at = plane + <usize>x;
    for (let y = 0; y < height; y++) v128.store(line + (<usize>y << 4), v128.load_ext<u8>(at + <usize>(y * stride)));
    const done = boxPasses(line, spare, height, radius, passes);
    const count = min(8, width - x);
    for (let y = 0; y < height; y++) {
      const to = at + <usize>(y * stride);
      if (count == 8) store8(to, v128.load(done + (<usize>y << 4)));
      else {
        store8(rows, v128.load(done + (<usize>y << 4)));
        memory.copy(to, rows, <usize>count);
      }
    }
  }
}

/**
 * Blurs a rectangle of a plane in place, first along all rows, then down all columns. `scratch` holds 48 bytes for each place of its
 * longer side and 400 more. Up to seven samples behind each row are read. The radius is at most 255.
 */
export function boxBlurPlane(plane: usize, stride: i32, width: i32, height: i32, radius: i32, passes: i32, scratch: usize): void {
  if (radius < 1 || width < 1 || height < 1) return;
  const reach = min(radius, 255);
  const longer = <usize>((max(width, height) + 7) & ~7);
  const rows = scratch;
  const line = rows + 16 * longer;
  const spare = line + 16 * longer;
  alongRows(plane, stride, width, height, reach, passes, rows, line, spare);
  downColumns(plane, stride, width, height, reach, passes, rows, line, spare);
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
