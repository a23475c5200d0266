/*
 * Separable resampling of one 8-bit plane. For each of eight output rows the source rows
 * are weighed into a row of 16-bit values with 6 fractional bits; these are turned into columns of eight, which
 * are weighed across together. Weights are Q14.
 */

// The vertical pass keeps 6 fractional bits: 255 * 64 fits a signed 16-bit lane with room for overshoot.
const VERTICAL_SHIFT: i32 = 8;
const VERTICAL_ROUND: i32 = 1 << (VERTICAL_SHIFT - 1);
const HORIZONTAL_SHIFT: i32 = 20;
const HORIZONTAL_ROUND: i32 = 1 << (HORIZONTAL_SHIFT - 1);

// @ts-ignore: decorator
@inline
function interleaveLow(a: v128, b: v128): v128 {
  return v128.shuffle<u8>(a, b, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
}

// @ts-ignore: decorator
@inline
function interleaveHigh(a: v128, b: v128): v128 {
  return v128.shuffle<u8>(a, b, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31);
}

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

/** Rows that are weighed across together. */
const BAND: i32 = 8;

// @ts-ignore: decorator
@inline
function words(a: v128, b: v128, high: bool): v128 {
  return high
    ? v128.shuffle<u16>(a, b, 4, 12, 5, 13, 6, 14, 7, 15)
    : v128.shuffle<u16>(a, b, 0, 8, 1, 9, 2, 10, 3, 11);
}

// @ts-ignore: decorator
@inline
function pairs(a: v128, b: v128, high: bool): v128 {
  return high ? v128.shuffle<u32>(a, b, 2, 6, 3, 7) : v128.shuffle<u32>(a, b, 0, 4, 1, 5);
}

// @ts-ignore: decorator
@inline
function quads(a: v128, b: v128, high: bool): v128 {
  return high ? v128.shuffle<u64>(a, b, 1, 3) : v128.shuffle<u64>(a, b, 0, 2);
}

/** Turns eight rows of 16-bit values, `stride` bytes apart, into columns of eight: `count` of them, rounded up to eight. */
// @ts-ignore: decorator
@inline
function transpose(lines: usize, stride: usize, count: i32, columns: usize): void {
  for (let x = 0; x < count; x += 8) {
    const at = lines + <usize>(x << 1);
    const r0 = v128.load(at);
    const r1 = v128.load(at + stride);
    const r2 = v128.load(at + 2 * stride);
    const r3 = v128.load(at + 3 * stride);
    const r4 = v128.load(at + 4 * stride);
    const r5 = v128.load(at + 5 * stride);
    const r6 = v128.load(at + 6 * stride);
    const r7 = v128.load(at + 7 * stride);
    const a0 = words(r0, r1, false);
    const a1 = words(r0, r1, true);
    const a2 = words(r2, r3, false);
    const a3 = words(r2, r3, true);
    const a4 = words(r4, r5, false);
    const a5 = words(r4, r5, true);
    const a6 = words(r6, r7, false);
    const a7 = words(r6, r7, true);
    const b0 = pairs(a0, a2, false);
    const b1 = pairs(a0, a2, true);
    const b2 = pairs(a4, a6, false);
    const b3 = pairs(a4, a6, true);
    const b4 = pairs(a1, a3, false);
    const b5 = pairs(a1, a3, true);
    const b6 = pairs(a5, a7, false);
    const b7 = pairs(a5, a7, true);
    const to = columns + <usize>(x << 4);
    v128.store(to, quads(b0, b2, false));
    v128.store(to, quads(b0, b2, true), 16);
    v128.store(to, quads(b1, b3, false), 32);
    v128.store(to, quads(b1, b3, true), 48);
    v128.store(to, quads(b4, b6, false), 64);
    v128.store(to, quads(b4, b6, true), 80);
    v128.store(to, quads(b5, b7, false), 96);
    v128.store(to, quads(b5, b7, true), 112);
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

/** Bytes of two columns, row by row beside each other. */
// @ts-ignore: decorator
@inline
function besides(a: v128, b: v128): v128 {
  const bytes = i8x16.narrow_i16x8_u(a, b);
  return v128.shuffle<u8>(bytes, bytes, 0, 8, 1, 9, 2, 10, 3, 11, 4, 12, 5, 13, 6, 14, 7, 15);
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
  const m0 = besides(c0, c1);
  const m1 = besides(c2, c3);
  const m2 = besides(c4, c5);
  const m3 = besides(c6, c7);
  const n0 = words(m0, m1, false);
  const n1 = words(m0, m1, true);
  const n2 = words(m2, m3, false);
  const n3 = words(m2, m3, true);
  const r01 = pairs(n0, n2, false);
  const r23 = pairs(n0, n2, true);
  const r45 = pairs(n1, n3, false);
  const r67 = pairs(n1, n3, true);
  v128.store64_lane(out, r01, 0);
  if (rows > 1) v128.store64_lane(out + stride, r01, 1);
  if (rows > 2) v128.store64_lane(out + 2 * stride, r23, 0);
  if (rows > 3) v128.store64_lane(out + 3 * stride, r23, 1);
  if (rows > 4) v128.store64_lane(out + 4 * stride, r45, 0);
  if (rows > 5) v128.store64_lane(out + 5 * stride, r45, 1);
  if (rows > 6) v128.store64_lane(out + 6 * stride, r67, 0);
  if (rows > 7) v128.store64_lane(out + 7 * stride, r67, 1);
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
