/*
 * Samples made brighter or steeper: in floating point, four samples in a vector.
 */
import { highFloats, lowFloats, roundByte, storeRounded } from './arithmetic';

/**
 * Samples times `factor` plus `offset` times their opacity, in place: brightness and contrast of a plane that is multiplied by its
 * opacity and stored around `pivot`. Without an opacity plane (address 0) it is 1.
 */
export function adjustPlane(
  plane: usize, stride: i32, alpha: usize, alphaStride: i32, width: i32, height: i32, factor: f32, offset: f32, pivot: i32,
): void {
  for (let y = 0; y < height; y++) {
    const row = plane + <usize>(y * stride);
    const a = alpha + <usize>(y * alphaStride);
    let x = 0;
    for (; x + 8 <= width; x += 8) {
      const at = row + <usize>x;
      const samples = v128.load_ext<u8>(at);
      const opacity = alpha == 0 ? i16x8.splat(255) : v128.load_ext<u8>(a + <usize>x);
      storeRounded(
        at,
        adjusted(lowFloats(samples), lowFloats(opacity), factor, offset, <f32>pivot),
        adjusted(highFloats(samples), highFloats(opacity), factor, offset, <f32>pivot),
      );
    }
    for (; x < width; x++) {
      const at = row + <usize>x;
      const opacity: f32 = alpha == 0 ? 255 : <f32>load<u8>(a + <usize>x);
      store<u8>(at, roundByte((<f32>load<u8>(at) - <f32>pivot) * factor + offset * (opacity / 255) + <f32>pivot));
    }
  }
}

// @ts-ignore: decorator
@inline
function adjusted(samples: v128, opacity: v128, factor: f32, offset: f32, pivot: f32): v128 {
  const steep = f32x4.mul(f32x4.sub(samples, f32x4.splat(pivot)), f32x4.splat(factor));
  const raised = f32x4.mul(f32x4.splat(offset), f32x4.div(opacity, f32x4.splat(255)));
  return f32x4.add(f32x4.add(steep, raised), f32x4.splat(pivot));
}
