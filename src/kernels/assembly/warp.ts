/*
 * Resampling along any straight axes: turned, sheared, scaled. Each target sample takes `taps` by
 * `taps` source samples around where it falls, weighed by a cubic whose weights are tabled for
 * `phases` fractions of a sample.
 */
import { clampByte } from './arithmetic';

/**
 * Fills a plane: target sample (x, y) falls on source position (ax * x + bx * y + cx,
 * ay * x + by * y + cy), sample centres at halves on both sides. `weights` holds `phases + 1` rows
 * of `taps` weights in Q14, for fractions from 0 to 1; `taps` is a multiple of eight. Beyond the
 * source's edge the outermost sample repeats.
 */
export function warpPlane(
  source: usize, sourceStride: i32, sourceWidth: i32, sourceHeight: i32,
  target: usize, targetStride: i32, targetWidth: i32, targetHeight: i32,
  ax: f64, bx: f64, cx: f64, ay: f64, by: f64, cy: f64,
  weights: usize, taps: i32, phases: i32, reach: i32,
): void {
  // Of the eight taps of a picture that does not shrink the middle four alone weigh anything.
  const few = taps == 8;
  const stepX = inQ32(ax);
  const stepY = inQ32(ay);
  for (let y = 0; y < targetHeight; y++) {
    const row = target + <usize>(y * targetStride);
    let sx = inQ32(ax * 0.5 + bx * (<f64>y + 0.5) + cx - 0.5);
    let sy = inQ32(ay * 0.5 + by * (<f64>y + 0.5) + cy - 0.5);
    for (let x = 0; x < targetWidth; x++, sx += stepX, sy += stepY) {
      const wx = weights + <usize>(phaseOf(sx, phases) * taps * 2);
      const wy = weights + <usize>(phaseOf(sy, phases) * taps * 2);
      const left = <i32>(sx >> 32) - reach;
      const top = <i32>(sy >> 32) - reach;
      const within = left >= -2 && left + 6 <= sourceWidth && top >= -2 && top + 6 <= sourceHeight;
      const sum = few && within
        ? fourByFour(
          source + <usize>((top + 2) * sourceStride + left + 2), sourceStride, wx + 4, wy + 4,
        )
        : square(source, sourceStride, sourceWidth, sourceHeight, left, top, wx, wy, taps);
      store<u8>(row + <usize>x, clampByte((sum + (1 << 19)) >> 20));
    }
  }
}

// @ts-ignore: decorator
@inline
function inQ32(value: f64): i64 {
  return <i64>floor(value * 4294967296.0 + 0.5);
}

/** Which of so many fractions of a sample a position in Q32 is next to. */
// @ts-ignore: decorator
@inline
function phaseOf(position: i64, phases: i32): i32 {
  return <i32>(((position & 0xffffffff) * <i64>phases + 0x80000000) >> 32);
}

/** The sum of four by four samples from `corner` on, weighed by four weights each way; in Q20. */
// @ts-ignore: decorator
@inline
function fourByFour(corner: usize, stride: i32, wx: usize, wy: usize): i32 {
  let samples = v128.load32_zero(corner);
  samples = v128.load32_lane(corner + <usize>stride, samples, 1);
  samples = v128.load32_lane(corner + <usize>(stride * 2), samples, 2);
  samples = v128.load32_lane(corner + <usize>(stride * 3), samples, 3);
  const across = v128.load64_splat(wx);
  const upper = i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(samples), across);
  const lower = i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(samples), across);
  const rows = i32x4.add(
    v128.shuffle<i32>(upper, lower, 0, 2, 4, 6), v128.shuffle<i32>(upper, lower, 1, 3, 5, 7),
  );
  const rounded = i32x4.shr_s(i32x4.add(rows, i32x4.splat(128)), 8);
  let total = i32x4.mul(rounded, v128.load_ext<i16>(wy));
  total = i32x4.add(total, v128.shuffle<i32>(total, total, 2, 3, 0, 1));
  return i32x4.extract_lane(total, 0) + i32x4.extract_lane(total, 1);
}

/** The same of `taps` by `taps` samples, wherever they lie. */
function square(
  source: usize, stride: i32, width: i32, height: i32,
  left: i32, top: i32, wx: usize, wy: usize, taps: i32,
): i32 {
  const inside = left >= 0 && left + taps <= width;
  let sum = 0;
  for (let j = 0; j < taps; j++) {
    const weight = <i32>load<i16>(wy + <usize>(j << 1));
    if (weight == 0) continue;
    const line = source + <usize>(max(0, min(height - 1, top + j)) * stride);
    let across = 0;
    if (inside) {
      let total = i32x4.splat(0);
      for (let k = 0; k < taps; k += 8)
        total = i32x4.add(
          total,
          i32x4.dot_i16x8_s(
            v128.load_ext<u8>(line + <usize>(left + k)), v128.load(wx + <usize>(k << 1)),
          ),
        );
      total = i32x4.add(total, v128.shuffle<i32>(total, total, 2, 3, 0, 1));
      across = i32x4.extract_lane(total, 0) + i32x4.extract_lane(total, 1);
    } else
      for (let k = 0; k < taps; k++) {
        const sample = <i32>load<u8>(line + <usize>max(0, min(width - 1, left + k)));
        across += sample * <i32>load<i16>(wx + <usize>(k << 1));
      }
    sum += ((across + 128) >> 8) * weight;
  }
  return sum;
}
