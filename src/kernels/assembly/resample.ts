/*
 * Separable resampling of one 8-bit plane. For each of eight output rows the source rows
 * are weighed into a row of 16-bit values with 6 fractional bits; these are turned into columns of eight, which
 * are weighed across together. Weights are Q14.
 */
import { BAND, storeColumns, transpose, words } from './turn';

// The vertical pass keeps 6 fractional bits: 255 * 64 fits a signed 16-bit lane with room for overshoot.
const VERTICAL_SHIFT: i32 = 8;
const VERTICAL_ROUND: i32 = 1 << (VERTICAL_SHIFT - 1);
const HORIZONTAL_SHIFT: i32 = 20;
const HORIZONTAL_ROUND: i32 = 1 << (HORIZONTAL_SHIFT - 1);

/**
 * One row of sums over `taps` source rows whose addresses stand at `rows`. `taps` is even. Up to fifteen samples beyond
 * `count` are read and written: the caller sees to it that they are there.
 */
// @ts-ignore: decorator
@inline
function weighRows(rows: usize, weights: usize, taps: i32, count: i32, out: usize): void {
  if (taps == 4) return weighFour(rows, weights, count, out);
  if (taps == 6) return weighSix(rows, weights, count, out);
  for (let x: usize = 0; x < <usize>count; x += 8) {
    let low = i32x4.splat(VERTICAL_ROUND);
    let high = low;
    for (let k: usize = 0; k < <usize>taps; k += 2) {
      const a = v128.load_ext<u8>(load<usize>(rows + (k << 2)) + x);
      const b = v128.load_ext<u8>(load<usize>(rows + (k << 2), 4) + x);
      const pair = v128.load32_splat(weights + (k << 1));
      low = i32x4.add(low, i32x4.dot_i16x8_s(words(a, b, false), pair));
      high = i32x4.add(high, i32x4.dot_i16x8_s(words(a, b, true), pair));
    }
    v128.store(out + (x << 1), i16x8.narrow_i32x4_s(i32x4.shr_s(low, VERTICAL_SHIFT), i32x4.shr_s(high, VERTICAL_SHIFT)));
  }
}

// @ts-ignore: decorator
@inline
function weighFour(rows: usize, weights: usize, count: i32, out: usize): void {
  const w0 = v128.load32_splat(weights);
  const w1 = v128.load32_splat(weights, 4);
  const p0 = load<usize>(rows);
  const p1 = load<usize>(rows, 4);
  const p2 = load<usize>(rows, 8);
  const p3 = load<usize>(rows, 12);
  const round = i32x4.splat(VERTICAL_ROUND);
  for (let x: usize = 0; x < <usize>count; x += 8) {
    const a0 = v128.load_ext<u8>(p0 + x);
    const a1 = v128.load_ext<u8>(p1 + x);
    const a2 = v128.load_ext<u8>(p2 + x);
    const a3 = v128.load_ext<u8>(p3 + x);
    const low = i32x4.add(i32x4.add(round, i32x4.dot_i16x8_s(words(a0, a1, false), w0)), i32x4.dot_i16x8_s(words(a2, a3, false), w1));
    const high = i32x4.add(i32x4.add(round, i32x4.dot_i16x8_s(words(a0, a1, true), w0)), i32x4.dot_i16x8_s(words(a2, a3, true), w1));
    v128.store(out + (x << 1), i16x8.narrow_i32x4_s(i32x4.shr_s(low, VERTICAL_SHIFT), i32x4.shr_s(high, VERTICAL_SHIFT)));
  }
}

// @ts-ignore: decorator
@inline
function weighSix(rows: usize, weights: usize, count: i32, out: usize): void {
  const w0 = v128.load32_splat(weights);
  const w1 = v128.load32_splat(weights, 4);
  const w2 = v128.load32_splat(weights, 8);
  const p0 = load<usize>(rows);
  const p1 = load<usize>(rows, 4);
  const p2 = load<usize>(rows, 8);
  const p3 = load<usize>(rows, 12);
  const p4 = load<usize>(rows, 16);
  const p5 = load<usize>(rows, 20);
  const round = i32x4.splat(VERTICAL_ROUND);
  for (let x: usize = 0; x < <usize>count; x += 8) {
    const a0 = v128.load_ext<u8>(p0 + x);
    const a1 = v128.load_ext<u8>(p1 + x);
    const a2 = v128.load_ext<u8>(p2 + x);
    const a3 = v128.load_ext<u8>(p3 + x);
    const a4 = v128.load_ext<u8>(p4 + x);
    const a5 = v128.load_ext<u8>(p5 + x);
    let low = i32x4.add(round, i32x4.dot_i16x8_s(words(a0, a1, false), w0));
    let high = i32x4.add(round, i32x4.dot_i16x8_s(words(a0, a1, true), w0));
    low = i32x4.add(low, i32x4.dot_i16x8_s(words(a2, a3, false), w1));
    high = i32x4.add(high, i32x4.dot_i16x8_s(words(a2, a3, true), w1));
    low = i32x4.add(low, i32x4.dot_i16x8_s(words(a4, a5, false), w2));
    high = i32x4.add(high, i32x4.dot_i16x8_s(words(a4, a5, true), w2));
    v128.store(out + (x << 1), i16x8.narrow_i32x4_s(i32x4.shr_s(low, VERTICAL_SHIFT), i32x4.shr_s(high, VERTICAL_SHIFT)));
  }
}

/** One output sample of each of the eight rows: the columns from `from` on, weighed. Six and fewer weights need no loop. */
// @ts-ignore: decorator
@inline
function weighColumns(from: usize, weights: usize, taps: i32): v128 {
  let low = i32x4.splat(HORIZONTAL_ROUND);
  let high = low;
  let at = from;
  let weight = weights;
  for (let left = taps; left > 6; left -= 2) {
    const a = v128.load(at);
    const b = v128.load(at, 16);
    const pair = v128.load32_splat(weight);
    low = i32x4.add(low, i32x4.dot_i16x8_s(words(a, b, false), pair));
    high = i32x4.add(high, i32x4.dot_i16x8_s(words(a, b, true), pair));
    at += 32;
    weight += 4;
  }
  const a0 = v128.load(at);
  const b0 = v128.load(at, 16);
  const p0 = v128.load32_splat(weight);
  low = i32x4.add(low, i32x4.dot_i16x8_s(words(a0, b0, false), p0));
  high = i32x4.add(high, i32x4.dot_i16x8_s(words(a0, b0, true), p0));
  const a1 = v128.load(at, 32);
  const b1 = v128.load(at, 48);
  const p1 = v128.load32_splat(weight, 4);
  low = i32x4.add(low, i32x4.dot_i16x8_s(words(a1, b1, false), p1));
  high = i32x4.add(high, i32x4.dot_i16x8_s(words(a1, b1, true), p1));
  if (taps >= 6) {
    const a2 = v128.load(at, 64);
    const b2 = v128.load(at, 80);
    const p2 = v128.load32_splat(weight, 8);
    low = i32x4.add(low, i32x4.dot_i16x8_s(words(a2, b2, false), p2));
    high = i32x4.add(high, i32x4.dot_i16x8_s(words(a2, b2, true), p2));
  }
  return i16x8.narrow_i32x4_s(i32x4.shr_s(low, HORIZONTAL_SHIFT), i32x4.shr_s(high, HORIZONTAL_SHIFT));
}

/** Eight output samples of each of the eight rows, as bytes, rows `stride` apart. `last` is the last output sample there is. */
// @ts-ignore: decorator
@inline
function weighBlock(columns: usize, left: i32, starts: usize, weights: usize, taps: i32, x: i32, last: i32, out: usize, stride: usize, rows: i32): void {
  const c0 = columnAt(columns, left, starts, weights, taps, x);
  const c1 = columnAt(columns, left, starts, weights, taps, min(x + 1, last));
  const c2 = columnAt(columns, left, starts, weights, taps, min(x + 2, last));
  const c3 = columnAt(columns, left, starts, weights, taps, min(x + 3, last));
  const c4 = columnAt(columns, left, starts, weights, taps, min(x + 4, last));
  const c5 = columnAt(columns, left, starts, weights, taps, min(x + 5, last));
  const c6 = columnAt(columns, left, starts, weights, taps, min(x + 6, last));
  const c7 = columnAt(columns, left, starts, weights, taps, min(x + 7, last));
  storeColumns(c0, c1, c2, c3, c4, c5, c6, c7, out, stride, rows);
}

// @ts-ignore: decorator
@inline
function columnAt(columns: usize, left: i32, starts: usize, weights: usize, taps: i32, x: i32): v128 {
  const start = load<i32>(starts + <usize>(x << 2)) - left;
  return weighColumns(columns + <usize>(start << 4), weights + <usize>(x * taps * 2), taps);
}

/**
 * Resamples a plane. Table rows and columns give, for each output row or column,
 * the first source sample and `taps` weights; the numbers of taps are even. `left` and `right` bound the
 * source columns that are needed, those beyond the source's edge with weight 0 included. Up to 15 bytes beyond the source are read.
 * `scratch` holds, with `span = right - left + 32`, 4 bytes for each row tap, 32 bytes for each of `span` columns and 192 bytes more.
 */
export function resamplePlane(
  source: usize, sourceStride: i32, sourceWidth: i32, sourceHeight: i32,
  target: usize, targetStride: i32, targetWidth: i32, targetHeight: i32,
  columnStarts: usize, columnWeights: usize, columnTaps: i32,
  rowStarts: usize, rowWeights: usize, rowTaps: i32,
  left: i32, right: i32, scratch: usize,
): void {
  const there = min(right, sourceWidth) - left;
  const lineStride = <usize>((right - left + 32) << 1);
  const rows = scratch;
  const block = scratch + <usize>(((rowTaps << 2) + 15) & ~15);
  const lines = block + <usize>(BAND * BAND);
  const columns = lines + <usize>BAND * lineStride;
  for (let y = 0; y < targetHeight; y += BAND) {
    const count = min(BAND, targetHeight - y);
    for (let r = 0; r < count; r++) {
      const first = load<i32>(rowStarts + <usize>((y + r) << 2));
      for (let k = 0; k < rowTaps; k++)
        store<usize>(rows + <usize>(k << 2), source + <usize>(min(first + k, sourceHeight - 1) * sourceStride + left));
      weighRows(rows, rowWeights + <usize>((y + r) * rowTaps * 2), rowTaps, there, lines + <usize>r * lineStride);
    }
    transpose(lines, lineStride, right - left, columns);
    const out = target + <usize>(y * targetStride);
    let x = 0;
    for (; x + BAND <= targetWidth; x += BAND)
      weighBlock(columns, left, columnStarts, columnWeights, columnTaps, x, x + BAND - 1, out + <usize>x, <usize>targetStride, count);
    if (x < targetWidth) {
      weighBlock(columns, left, columnStarts, columnWeights, columnTaps, x, targetWidth - 1, block, BAND, BAND);
      for (let r = 0; r < count; r++)
        memory.copy(out + <usize>(r * targetStride + x), block + <usize>(r * BAND), <usize>(targetWidth - x));
    }
  }
}
