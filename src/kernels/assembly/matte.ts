/*
 * What is done to opacity planes once they are made, and what fades a picture around a place.
 */
import { mix1, mix8, store8 } from './arithmetic';

/** The least (or with `grow` the largest) sample within `radius` in both directions, in place; `scratch` holds `width * height` bytes. */
export function spreadPlane(plane: usize, width: i32, height: i32, radius: i32, grow: i32, scratch: usize): void {
  for (let y = 0; y < height; y++) {
    const row = plane + <usize>(y * width);
    const to = scratch + <usize>(y * width);
    let x = 0;
    for (; x < width; x++) {
      if (x >= radius && x + radius + 16 <= width) {
        let best = v128.load(row + <usize>(x - radius));
        for (let d = 1 - radius; d <= radius; d++) {
          const next = v128.load(row + <usize>(x + d));
          best = grow ? i8x16.max_u(best, next) : i8x16.min_u(best, next);
        }
        v128.store(to + <usize>x, best);
        x += 15;
      } else {
        let best = <i32>load<u8>(row + <usize>x);
        for (let d = -radius; d <= radius; d++) {
          const next = <i32>load<u8>(row + <usize>max(0, min(width - 1, x + d)));
          best = grow ? max(best, next) : min(best, next);
        }
        store<u8>(to + <usize>x, <u8>best);
      }
    }
  }
  for (let y = 0; y < height; y++) {
    const to = plane + <usize>(y * width);
    let x = 0;
    for (; x < width; x++) {
      if (x + 16 <= width) {
        let best = v128.load(scratch + <usize>(y * width + x));
        for (let d = -radius; d <= radius; d++) {
          const next = v128.load(scratch + <usize>(max(0, min(height - 1, y + d)) * width + x));
          best = grow ? i8x16.max_u(best, next) : i8x16.min_u(best, next);
        }
        v128.store(to + <usize>x, best);
        x += 15;
      } else {
        let best = <i32>load<u8>(scratch + <usize>(y * width + x));
        for (let d = -radius; d <= radius; d++) {
          const next = <i32>load<u8>(scratch + <usize>(max(0, min(height - 1, y + d)) * width + x));
          best = grow ? max(best, next) : min(best, next);
        }
        store<u8>(to + <usize>x, <u8>best);
      }
    }
  }
}

/**
 * Brings samples towards `value` outside a disc: not at all within `inner` of the centre, by `strength` (0 to 255) beyond `outer`, and on
 * a smooth curve between. Distances are in samples of this plane; the centre counts from its upper left corner.
 */
export function fadeOutside(
  plane: usize, stride: i32, width: i32, height: i32, centerX: f32, centerY: f32, inner: f32, outer: f32, value: i32, strength: i32,
): void {
  const values = i16x8.splat(<i16>value);
  const strengths = i16x8.splat(<i16>strength);
  const ramp: f32 = 1 / max<f32>(outer - inner, 0.001);
  for (let y = 0; y < height; y++) {
    const row = plane + <usize>(y * stride);
    const dy = <f32>y + 0.5 - centerY;
    // The columns that the disc reaches in this row; all others fade by the whole strength.
    const reach = outer * outer - dy * dy;
    const side: f32 = reach > 0 ? sqrt<f32>(reach) : 0;
    const left = reach > 0 ? max(0, min(width, <i32>floor<f32>(centerX - side))) : width;
    const right = reach > 0 ? max(left, min(width, <i32>ceil<f32>(centerX + side))) : width;
    fadeRun(row, 0, left, values, strengths, value, strength);
    for (let x = left; x < right; x++) {
      const dx = <f32>x + 0.5 - centerX;
      const away = min<f32>(1, max<f32>(0, (sqrt<f32>(dx * dx + dy * dy) - inner) * ramp));
      const share = away * away * (3 - 2 * away);
      const at = row + <usize>x;
      store<u8>(at, <u8>mix1(<i32>load<u8>(at), value, <i32>(share * <f32>strength + 0.5)));
    }
    fadeRun(row, right, width, values, strengths, value, strength);
  }
}

// @ts-ignore: decorator
@inline
function fadeRun(row: usize, from: i32, to: i32, values: v128, strengths: v128, value: i32, strength: i32): void {
  let x = from;
  for (; x + 8 <= to; x += 8) store8(row + <usize>x, mix8(v128.load_ext<u8>(row + <usize>x), values, strengths));
  for (; x < to; x++) store<u8>(row + <usize>x, <u8>mix1(<i32>load<u8>(row + <usize>x), value, strength));
}
