import { highFloats, lowFloats, roundByte, storeRounded } from './arithmetic';

/*
 * Pictures joined by multiplying: in floating point, four samples in a vector.
 */

/** Luma of black, and from there to white. */
const BLACK: f32 = 16;
const RANGE: f32 = 219;

/**
 * Multiplies the luma of a picture by that of another, or with `screen` multiplies their complements, which makes both brighter. The other is
 * multiplied by its opacity already; where that is 0 nothing changes.
 */
export function multiplyLuma(
  target: usize, targetStride: i32, source: usize, sourceStride: i32, alpha: usize, alphaStride: i32, width: i32, height: i32, screen: i32,
): void {
  for (let y = 0; y < height; y++) {
    const t = target + <usize>(y * targetStride);
    const s = source + <usize>(y * sourceStride);
    const a = alpha + <usize>(y * alphaStride);
    let x = 0;
    for (; x + 8 <= width; x += 8) {
      const at = <usize>x;
      const own = v128.load_ext<u8>(t + at);
      const other = v128.load_ext<u8>(s + at);
      const opacity = v128.load_ext<u8>(a + at);
      storeRounded(
        t + at,
        product4(lowFloats(own), lowFloats(other), lowFloats(opacity), screen),
        product4(highFloats(own), highFloats(other), highFloats(opacity), screen),
      );
    }
    for (; x < width; x++) {
      const at = <usize>x;
      const product = light(<f32>load<u8>(t + at), screen) * factor(<f32>load<u8>(s + at), <f32>load<u8>(a + at) / 255, screen);
      store<u8>(t + at, roundByte(BLACK + (screen ? 1 - product : product) * RANGE));
    }
  }
}

// @ts-ignore: decorator
@inline
function product4(own: v128, other: v128, opacity: v128, screen: i32): v128 {
  const product = f32x4.mul(light4(own, screen), factor4(other, opacity, screen));
  const share = screen ? f32x4.sub(f32x4.splat(1), product) : product;
  return f32x4.add(f32x4.splat(BLACK), f32x4.mul(share, f32x4.splat(RANGE)));
}

/** Light of a luma sample, 0 to 1, or what it lacks of white. */
// @ts-ignore: decorator
@inline
function light(luma: f32, screen: i32): f32 {
  const share = min<f32>(1, max<f32>(0, (luma - BLACK) / RANGE));
  return screen ? 1 - share : share;
}

// @ts-ignore: decorator
@inline
function light4(luma: v128, screen: i32): v128 {
  const one = f32x4.splat(1);
  const share = f32x4.min(one, f32x4.max(f32x4.splat(0), f32x4.div(f32x4.sub(luma, f32x4.splat(BLACK)), f32x4.splat(RANGE))));
  return screen ? f32x4.sub(one, share) : share;
}

/** What a sample that is multiplied by its opacity leaves of what it lies on. */
// @ts-ignore: decorator
@inline
function factor(luma: f32, alpha: f32, screen: i32): f32 {
  const share = min<f32>(alpha, max<f32>(0, (luma - BLACK * alpha) / RANGE));
  return 1 - alpha + (screen ? alpha - share : share);
}

/** The same of four, opacity from 0 to 255. */
// @ts-ignore: decorator
@inline
function factor4(luma: v128, opacity: v128, screen: i32): v128 {
  const alpha = f32x4.div(opacity, f32x4.splat(255));
  const lit = f32x4.div(f32x4.sub(luma, f32x4.mul(f32x4.splat(BLACK), alpha)), f32x4.splat(RANGE));
  const share = f32x4.min(alpha, f32x4.max(f32x4.splat(0), lit));
  return f32x4.add(f32x4.sub(f32x4.splat(1), alpha), screen ? f32x4.sub(alpha, share) : share);
}

/**
 * The colour differences of what `multiplyLuma` does, one chroma plane at a time and before it, since it reads the luma as it was; the luma planes
 * have twice the size. Each difference is multiplied by the other's luma, which is exact where one of the two is grey and leaves out
 * the product of two differences otherwise.
 */
export function multiplyChroma(
  target: usize, targetStride: i32, source: usize, sourceStride: i32, alpha: usize, alphaStride: i32, width: i32, height: i32, screen: i32,
  targetLuma: usize, targetLumaStride: i32, sourceLuma: usize, sourceLumaStride: i32,
): void {
  const even = i16x8.splat(255);
  for (let y = 0; y < height; y++) {
    const t = target + <usize>(y * targetStride);
    const s = source + <usize>(y * sourceStride);
    const a = alpha + <usize>(y * alphaStride);
    const tl = targetLuma + <usize>(2 * y * targetLumaStride);
    const sl = sourceLuma + <usize>(2 * y * sourceLumaStride);
    let x = 0;
    for (; x + 8 <= width; x += 8) {
      const at = <usize>x;
      const own = v128.load_ext<u8>(t + at);
      const other = v128.load_ext<u8>(s + at);
      const opacity = v128.load_ext<u8>(a + at);
      const lit = v128.and(v128.load(tl + (at << 1)), even);
      const laid = v128.and(v128.load(sl + (at << 1)), even);
      storeRounded(
        t + at,
        difference4(lowFloats(own), lowFloats(other), lowFloats(opacity), lowFloats(lit), lowFloats(laid), screen),
        difference4(highFloats(own), highFloats(other), highFloats(opacity), highFloats(lit), highFloats(laid), screen),
      );
    }
    for (; x < width; x++) {
      const at = <usize>x;
      const own = <f32>load<u8>(t + at) - 128;
      const other = <f32>load<u8>(s + at) - 128;
      const left = factor(<f32>load<u8>(sl + (at << 1)), <f32>load<u8>(a + at) / 255, screen);
      store<u8>(t + at, roundByte(128 + own * left + other * light(<f32>load<u8>(tl + (at << 1)), screen)));
    }
  }
}

// @ts-ignore: decorator
@inline
function difference4(own: v128, other: v128, opacity: v128, lit: v128, laid: v128, screen: i32): v128 {
  const middle = f32x4.splat(128);
  const kept = f32x4.mul(f32x4.sub(own, middle), factor4(laid, opacity, screen));
  return f32x4.add(middle, f32x4.add(kept, f32x4.mul(f32x4.sub(other, middle), light4(lit, screen))));
}
