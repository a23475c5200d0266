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
function weighRows(source: usize, stride: i32, rows: i32, first: i32, weights: usize, taps: i32, left: i32, right: i32, out: usize): void {
  let x = left;
  const last = rows - 1;
  for (; x + 8 <= right; x += 8) {
    let low = i32x4.splat(VERTICAL_ROUND);
    let high = low;
    for (let k = 0; k < taps; k += 2) {
      const a = source + <usize>(min(first + k, last) * stride + x);
      const b = source + <usize>(min(first + k + 1, last) * stride + x);
      const rowA = v128.load_ext<u8>(a);
      const rowB = v128.load_ext<u8>(b);
      const pair = v128.load32_splat(weights + <usize>(k << 1));
      const lower = v128.shuffle<i16>(rowA, rowB, 0, 8, 1, 9, 2, 10, 3, 11);
      const upper = v128.shuffle<i16>(rowA, rowB, 4, 12, 5, 13, 6, 14, 7, 15);
      low = i32x4.add(low, i32x4.dot_i16x8_s(lower, pair));
      high = i32x4.add(high, i32x4.dot_i16x8_s(upper, pair));
    }
    v128.store(
      out + <usize>(x << 1),
      i16x8.narrow_i32x4_s(i32x4.shr_s(low, VERTICAL_SHIFT), i32x4.shr_s(high, VERTICAL_SHIFT)),
    );
  }
  for (; x < right; x++) {
    let sum = VERTICAL_ROUND;
    for (let k = 0; k < taps; k++)
      sum += <i32>load<u8>(source + <usize>(min(first + k, last) * stride + x)) * <i32>load<i16>(weights + <usize>(k << 1));
    store<i16>(out + <usize>(x << 1), <i16>max(-32768, min(32767, sum >> VERTICAL_SHIFT)));
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
 * the first source sample and `taps` weights. `scratch` holds one source row of 16-bit
 * values and 32 bytes more. `left` and `right` bound the source columns that are needed.
 */
export function resamplePlane(
  source: usize, sourceStride: i32, sourceWidth: i32, sourceHeight: i32,
  target: usize, targetStride: i32, targetWidth: i32, targetHeight: i32,
  columnStarts: usize, columnWeights: usize, columnTaps: i32,
  rowStarts: usize, rowWeights: usize, rowTaps: i32,
  left: i32, right: i32, scratch: usize,
): void {
  for (let y = 0; y < targetHeight; y++) {
    const first = load<i32>(rowStarts + <usize>(y << 2));
    weighRows(source, sourceStride, sourceHeight, first, rowWeights + <usize>(y * rowTaps * 2), rowTaps, left, right, scratch);
    weighAcross(scratch, columnStarts, columnWeights, columnTaps, sourceWidth, targetWidth, target + <usize>(y * targetStride));
  }
}
