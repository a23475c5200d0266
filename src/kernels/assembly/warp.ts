/*
 * Resampling along any straight axes, of pictures that are not made smaller. Each target sample
 * takes the four by four source samples around where it falls, by weights that are tabled for the
 * fractions of a sample down and across.
 */
import { clampByte } from './arithmetic';

/** Fractions of a sample that are told apart, as a power of two; tables have one more each way. */
const PHASE_BITS: i64 = 6;
const SIDE: i32 = 65;
const ROUND: i32 = 1 << 13;

/**
 * Fills a plane: target sample (x, y) falls on source position (ax * x + bx * y + cx,
 * ay * x + by * y + cy), sample centres at halves on both sides. `weights` holds 65 by 65 times
 * sixteen weights in Q14, for fractions from 0 to 1 in steps of 1/64, down first. Beyond the
 * source's edge the outermost sample repeats.
 */
export function warpPlane(
  source: usize, sourceStride: i32, sourceWidth: i32, sourceHeight: i32,
  target: usize, targetStride: i32, targetWidth: i32, targetHeight: i32,
  ax: f64, bx: f64, cx: f64, ay: f64, by: f64, cy: f64,
  weights: usize,
): void {
  const stepX = inQ32(ax);
  const stepY = inQ32(ay);
  for (let y = 0; y < targetHeight; y++) {
    const row = target + <usize>(y * targetStride);
    let sx = inQ32(ax * 0.5 + bx * (<f64>y + 0.5) + cx - 0.5);
    let sy = inQ32(ay * 0.5 + by * (<f64>y + 0.5) + cy - 0.5);
    let x = 0;
    while (x < targetWidth) {
      // What lies between two places within lies within.
      if (
        x + 4 <= targetWidth &&
        isWithin(sx, sy, sourceWidth, sourceHeight) &&
        isWithin(sx + 3 * stepX, sy + 3 * stepY, sourceWidth, sourceHeight)
      ) {
        const a = products(source, sourceStride, sx, sy, weights);
        const b = products(source, sourceStride, sx + stepX, sy + stepY, weights);
        const c = products(source, sourceStride, sx + 2 * stepX, sy + 2 * stepY, weights);
        const d = products(source, sourceStride, sx + 3 * stepX, sy + 3 * stepY, weights);
        store<i32>(row + <usize>x, fourBytes(pairs(pairs(a, b), pairs(c, d))));
        x += 4;
        sx += 4 * stepX;
        sy += 4 * stepY;
      } else {
        const sum = atEdge(source, sourceStride, sourceWidth, sourceHeight, sx, sy, weights);
        store<u8>(row + <usize>x, clampByte((sum + ROUND) >> 14));
        x++;
        sx += stepX;
        sy += stepY;
      }
    }
  }
}

// @ts-ignore: decorator
@inline
function inQ32(value: f64): i64 {
  return <i64>floor(value * 4294967296.0 + 0.5);
}

/** Whether all samples around a position in Q32 are there. */
// @ts-ignore: decorator
@inline
function isWithin(sx: i64, sy: i64, width: i32, height: i32): bool {
  const x = <i32>(sx >> 32);
  const y = <i32>(sy >> 32);
  return x >= 1 && x + 3 <= width && y >= 1 && y + 3 <= height;
}

/** The weights for the fractions of a position in Q32. */
// @ts-ignore: decorator
@inline
function weightsAt(sx: i64, sy: i64, weights: usize): usize {
  return weights + <usize>((phaseOf(sy) * SIDE + phaseOf(sx)) << 5);
}

/** Which fraction of a sample a position in Q32 is next to. */
// @ts-ignore: decorator
@inline
function phaseOf(position: i64): i32 {
  return <i32>(((position & 0xffffffff) + (1 << (31 - PHASE_BITS))) >> (32 - PHASE_BITS));
}

/** Four sums, which together are the samples around a position in Q32 by their weights. */
// @ts-ignore: decorator
@inline
function products(source: usize, stride: i32, sx: i64, sy: i64, weights: usize): v128 {
  const corner = source + <usize>((<i32>(sy >> 32) - 1) * stride + <i32>(sx >> 32) - 1);
  let samples = v128.load32_zero(corner);
  samples = v128.load32_lane(corner + <usize>stride, samples, 1);
  samples = v128.load32_lane(corner + <usize>(stride * 2), samples, 2);
  samples = v128.load32_lane(corner + <usize>(stride * 3), samples, 3);
  const by = weightsAt(sx, sy, weights);
  return i32x4.add(
    i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(samples), v128.load(by)),
    i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(samples), v128.load(by, 16)),
  );
}

/** The sums of neighbours in two vectors, those of the first before those of the second. */
// @ts-ignore: decorator
@inline
function pairs(a: v128, b: v128): v128 {
  return i32x4.add(v128.shuffle<i32>(a, b, 0, 2, 4, 6), v128.shuffle<i32>(a, b, 1, 3, 5, 7));
}

/** Four sums in Q14 as bytes. */
// @ts-ignore: decorator
@inline
function fourBytes(sums: v128): i32 {
  const rounded = i32x4.shr_s(i32x4.add(sums, i32x4.splat(ROUND)), 14);
  const words = i16x8.narrow_i32x4_s(rounded, rounded);
  return i32x4.extract_lane(i8x16.narrow_i16x8_u(words, words), 0);
}

/** The same sum of samples some of which lie beyond an edge. */
function atEdge(
  source: usize, stride: i32, width: i32, height: i32, sx: i64, sy: i64, weights: usize,
): i32 {
  const left = <i32>(sx >> 32) - 1;
  const top = <i32>(sy >> 32) - 1;
  const by = weightsAt(sx, sy, weights);
  let sum = 0;
  for (let j = 0; j < 4; j++) {
    const line = source + <usize>(max(0, min(height - 1, top + j)) * stride);
    for (let k = 0; k < 4; k++) {
      const sample = <i32>load<u8>(line + <usize>max(0, min(width - 1, left + k)));
      sum += sample * <i32>load<i16>(by + <usize>((j * 4 + k) << 1));
    }
  }
  return sum;
}
