/*
 * Separable resampling of one 8-bit plane. For each output row the source rows
 * are weighed into a row of 16-bit values with 6 fractional bits, then
 * that row is weighed across. Weights are Q14.
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
 * One row of sums over `taps` source rows whose addresses stand at `rows`, from column `left` to `right`.
 * `taps` is even. Up to fifteen samples beyond `right` are read and written: the caller sees to it
 * that they are there.
 */
// @ts-ignore: decorator
@inline
function weighRows(rows: usize, weights: usize, taps: i32, left: i32, right: i32, out: usize): void {
  for (let x = left; x < right; x += 16) {
    let s0 = i32x4.splat(VERTICAL_ROUND);
    let s1 = s0;
    let s2 = s0;
    let s3 = s0;
    for (let k: usize = 0; k < <usize>taps; k += 2) {
      const a = v128.load(load<usize>(rows + (k << 2)) + <usize>x);
      const b = v128.load(load<usize>(rows + (k << 2), 4) + <usize>x);
      const pair = v128.load32_splat(weights + (k << 1));
      const low = interleaveLow(a, b);
      const high = interleaveHigh(a, b);
      s0 = i32x4.add(s0, i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(low), pair));
      s1 = i32x4.add(s1, i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(low), pair));
      s2 = i32x4.add(s2, i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(high), pair));
      s3 = i32x4.add(s3, i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(high), pair));
    }
    const to = out + <usize>(x << 1);
    v128.store(to, i16x8.narrow_i32x4_s(i32x4.shr_s(s0, VERTICAL_SHIFT), i32x4.shr_s(s1, VERTICAL_SHIFT)));
    v128.store(to, i16x8.narrow_i32x4_s(i32x4.shr_s(s2, VERTICAL_SHIFT), i32x4.shr_s(s3, VERTICAL_SHIFT)), 16);
  }
}

// @ts-ignore: decorator
@inline
function weighAcross(row: usize, starts: usize, weights: usize, taps: i32, length: i32, count: i32, out: usize): void {
  let x = 0;
  if ((taps & 7) == 0) {
    for (; x + 4 <= count; x += 4) {
      let s0 = i32x4.splat(0);
      let s1 = s0;
      let s2 = s0;
      let s3 = s0;
      const r0 = row + <usize>(load<i32>(starts + <usize>(x << 2)) << 1);
      const r1 = row + <usize>(load<i32>(starts + <usize>(x << 2), 4) << 1);
      const r2 = row + <usize>(load<i32>(starts + <usize>(x << 2), 8) << 1);
      const r3 = row + <usize>(load<i32>(starts + <usize>(x << 2), 12) << 1);
      const w0 = weights + <usize>(x * taps * 2);
      const w1 = w0 + <usize>(taps << 1);
      const w2 = w1 + <usize>(taps << 1);
      const w3 = w2 + <usize>(taps << 1);
      for (let k = 0; k < taps; k += 8) {
        const at = <usize>(k << 1);
        s0 = i32x4.add(s0, i32x4.dot_i16x8_s(v128.load(r0 + at), v128.load(w0 + at)));
        s1 = i32x4.add(s1, i32x4.dot_i16x8_s(v128.load(r1 + at), v128.load(w1 + at)));
        s2 = i32x4.add(s2, i32x4.dot_i16x8_s(v128.load(r2 + at), v128.load(w2 + at)));
        s3 = i32x4.add(s3, i32x4.dot_i16x8_s(v128.load(r3 + at), v128.load(w3 + at)));
      }
      // Transposed sum: lane i becomes the total of s_i.
      const t0 = i32x4.add(v128.shuffle<i32>(s0, s1, 0, 4, 1, 5), v128.shuffle<i32>(s0, s1, 2, 6, 3, 7));
      const t1 = i32x4.add(v128.shuffle<i32>(s2, s3, 0, 4, 1, 5), v128.shuffle<i32>(s2, s3, 2, 6, 3, 7));
      const sum = i32x4.add(v128.shuffle<i32>(t0, t1, 0, 1, 4, 5), v128.shuffle<i32>(t0, t1, 2, 3, 6, 7));
      const value = i32x4.shr_s(i32x4.add(sum, i32x4.splat(HORIZONTAL_ROUND)), HORIZONTAL_SHIFT);
      const words = i16x8.narrow_i32x4_s(value, value);
      v128.store32_lane(out + <usize>x, i8x16.narrow_i16x8_u(words, words), 0);
    }
  }
  for (; x < count; x++) {
    const first = load<i32>(starts + <usize>(x << 2));
    let sum = HORIZONTAL_ROUND;
    for (let k = 0; k < taps; k++)
      sum +=
        <i32>load<i16>(row + <usize>(min(first + k, length - 1) << 1)) *
        <i32>load<i16>(weights + <usize>((x * taps + k) << 1));
    store<u8>(out + <usize>x, <u8>max(0, min(255, sum >> HORIZONTAL_SHIFT)));
  }
}

/**
 * Resamples a plane. Table rows and columns give, for each output row or column,
 * the first source sample and `taps` weights; the numbers of taps are even. `left` and `right` bound the
 * source columns that are needed. `scratch` holds an address for each row tap, rounded up to 16 bytes, then one
 * source row of 16-bit values and 64 bytes more. Up to 15 bytes beyond the source are read.
 */
export function resamplePlane(
  source: usize, sourceStride: i32, sourceWidth: i32, sourceHeight: i32,
  target: usize, targetStride: i32, targetWidth: i32, targetHeight: i32,
  columnStarts: usize, columnWeights: usize, columnTaps: i32,
  rowStarts: usize, rowWeights: usize, rowTaps: i32,
  left: i32, right: i32, scratch: usize,
): void {
  const rows = scratch;
  const line = scratch + <usize>(((rowTaps << 2) + 15) & ~15);
  for (let y = 0; y < targetHeight; y++) {
    const first = load<i32>(rowStarts + <usize>(y << 2));
    for (let k = 0; k < rowTaps; k++)
      store<usize>(rows + <usize>(k << 2), source + <usize>(min(first + k, sourceHeight - 1) * sourceStride));
    weighRows(rows, rowWeights + <usize>(y * rowTaps * 2), rowTaps, left, right, line);
    weighAcross(line, columnStarts, columnWeights, columnTaps, sourceWidth, targetWidth, target + <usize>(y * targetStride));
  }
}
