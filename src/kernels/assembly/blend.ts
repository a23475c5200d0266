import { allFull, clampByte, divide255, mix1, mix8, roundByte, scale8, store8 } from './arithmetic';

/**
 * Lays a plane over another through an opacity plane, all rows `width` long and with strides of their own.
 * `opacity` (0 to 255) scales the whole; `light`, when not 0, is the target's luma at the same places
 * (its stride `lightStride`, every `lightStep`th sample of it), and scales opacity too: dark
 * pixels then keep their colour, as under a tint. The opacity plane is 0 to 255.
 */
export function blendPlane(
  target: usize, targetStride: i32, source: usize, sourceStride: i32, alpha: usize, alphaStride: i32,
  width: i32, height: i32, opacity: i32, light: usize, lightStride: i32, lightStep: i32,
): void {
  const whole = i16x8.splat(<i16>opacity);
  for (let y = 0; y < height; y++) {
    const t = target + <usize>(y * targetStride);
    const s = source + <usize>(y * sourceStride);
    const a = alpha + <usize>(y * alphaStride);
    const l = light + <usize>(y * lightStride * lightStep);
    let x = 0;
    if (light == 0)
      for (; x + 8 <= width; x += 8) {
        const at = <usize>x;
        if (load<u64>(a + at)) store8(t + at, mix8(v128.load_ext<u8>(t + at), v128.load_ext<u8>(s + at), scale8(v128.load_ext<u8>(a + at), whole)));
      }
    for (; x < width; x++) {
      const at = <usize>x;
      let weight = divide255(<i32>load<u8>(a + at) * opacity + 127);
      if (light != 0) weight = divide255(weight * <i32>load<u8>(l + <usize>(x * lightStep)) + 127);
      store<u8>(t + at, <u8>mix1(<i32>load<u8>(t + at), <i32>load<u8>(s + at), weight));
    }
  }
}

/**
 * Lays a plane that is already multiplied by its opacity over another. `pivot` is what stands for nothing:
 * 0 in luma, 128 in chroma, around which the multiplied samples are stored.
 */
export function layPlane(
  target: usize, targetStride: i32, source: usize, sourceStride: i32, alpha: usize, alphaStride: i32, width: i32, height: i32, pivot: i32,
): void {
  const nothing = i16x8.splat(<i16>pivot);
  for (let y = 0; y < height; y++) {
    const t = target + <usize>(y * targetStride);
    const s = source + <usize>(y * sourceStride);
    const a = alpha + <usize>(y * alphaStride);
    let x = 0;
    for (; x + 16 <= width; x += 16) {
      const at = <usize>x;
      const opacity = v128.load(a + at);
      const samples = v128.load(s + at);
      if (allFull(opacity)) v128.store(t + at, samples);
      else if (v128.any_true(v128.or(opacity, v128.xor(samples, i8x16.splat(<i8>pivot))))) {
        lay8(t + at, s + at, a + at, nothing);
        lay8(t + at + 8, s + at + 8, a + at + 8, nothing);
      }
    }
    for (; x + 8 <= width; x += 8) lay8(t + <usize>x, s + <usize>x, a + <usize>x, nothing);
    for (; x < width; x++) {
      const at = <usize>x;
      const left = mix1(<i32>load<u8>(t + at), pivot, <i32>load<u8>(a + at));
      store<u8>(t + at, clampByte(left + <i32>load<u8>(s + at) - pivot));
    }
  }
}

// @ts-ignore: decorator
@inline
function lay8(target: usize, source: usize, alpha: usize, nothing: v128): void {
  const left = mix8(v128.load_ext<u8>(target), nothing, v128.load_ext<u8>(alpha));
  store8(target, i16x8.add(left, i16x8.sub(v128.load_ext<u8>(source), nothing)));
}

/** Blends `count` samples over others with one weight, 0 to 255, the same everywhere. */
export function mixPlane(target: usize, source: usize, count: i32, weight: i32): void {
  const alpha = i16x8.splat(<i16>weight);
  let i = 0;
  for (; i + 8 <= count; i += 8) {
    const at = <usize>i;
    store8(target + at, mix8(v128.load_ext<u8>(target + at), v128.load_ext<u8>(source + at), alpha));
  }
  for (; i < count; i++) {
    const at = <usize>i;
    store<u8>(target + at, <u8>mix1(<i32>load<u8>(target + at), <i32>load<u8>(source + at), weight));
  }
}

/** Copies rows of `width` bytes; strides may differ. */
export function copyRows(source: usize, sourceStride: i32, target: usize, targetStride: i32, width: i32, rows: i32): void {
  for (let y = 0; y < rows; y++) memory.copy(target + <usize>(y * targetStride), source + <usize>(y * sourceStride), <usize>width);
}

/** Fills a rectangle of a plane with one value. */
export function fillPlane(target: usize, stride: i32, width: i32, height: i32, value: i32): void {
  for (let y = 0; y < height; y++) memory.fill(target + <usize>(y * stride), <u8>value, <usize>width);
}

/** Brings `count` samples towards `pivot` by how far an opacity plane is from 255: with 0 it multiplies, 255 standing for 1. */
export function multiplyPlane(target: usize, by: usize, count: i32, pivot: i32): void {
  const nothing = i16x8.splat(<i16>pivot);
  let i = 0;
  for (; i + 8 <= count; i += 8) {
    const at = <usize>i;
    if (load<u64>(by + at) != u64.MAX_VALUE) store8(target + at, mix8(nothing, v128.load_ext<u8>(target + at), v128.load_ext<u8>(by + at)));
  }
  for (; i < count; i++) {
    const at = <usize>i;
    store<u8>(target + at, <u8>mix1(pivot, <i32>load<u8>(target + at), <i32>load<u8>(by + at)));
  }
}

/**
 * Samples times `factor` plus `offset` times their opacity, in place: brightness and contrast of a plane that is multiplied by its
 * opacity and stored around `pivot`. Without an opacity plane (address 0) it is 1.
 */
export function adjustPlane(
  plane: usize, stride: i32, alpha: usize, alphaStride: i32, width: i32, height: i32, factor: f32, offset: f32, pivot: i32,
): void {
  const nothing = <f32>pivot;
  for (let y = 0; y < height; y++) {
    const row = plane + <usize>(y * stride);
    const a = alpha + <usize>(y * alphaStride);
    for (let x = 0; x < width; x++) {
      const at = row + <usize>x;
      const share: f32 = alpha == 0 ? 1 : <f32>load<u8>(a + <usize>x) / 255;
      store<u8>(at, roundByte((<f32>load<u8>(at) - nothing) * factor + offset * share + nothing));
    }
  }
}

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
    for (let x = 0; x < width; x++) {
      const at = <usize>x;
      const product = light(<f32>load<u8>(t + at), screen) * factor(<f32>load<u8>(s + at), <f32>load<u8>(a + at) / 255, screen);
      store<u8>(t + at, roundByte(BLACK + (screen ? 1 - product : product) * RANGE));
    }
  }
}

/** Light of a luma sample, 0 to 1, or what it lacks of white. */
// @ts-ignore: decorator
@inline
function light(luma: f32, screen: i32): f32 {
  const share = min<f32>(1, max<f32>(0, (luma - BLACK) / RANGE));
  return screen ? 1 - share : share;
}

/** What a sample that is multiplied by its opacity leaves of what it lies on. */
// @ts-ignore: decorator
@inline
function factor(luma: f32, alpha: f32, screen: i32): f32 {
  const share = min<f32>(alpha, max<f32>(0, (luma - BLACK * alpha) / RANGE));
  return 1 - alpha + (screen ? alpha - share : share);
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
  for (let y = 0; y < height; y++) {
    const t = target + <usize>(y * targetStride);
    const s = source + <usize>(y * sourceStride);
    const a = alpha + <usize>(y * alphaStride);
    const tl = targetLuma + <usize>(2 * y * targetLumaStride);
    const sl = sourceLuma + <usize>(2 * y * sourceLumaStride);
    for (let x = 0; x < width; x++) {
      const at = <usize>x;
      const own = <f32>load<u8>(t + at) - 128;
      const other = <f32>load<u8>(s + at) - 128;
      const left = factor(<f32>load<u8>(sl + (at << 1)), <f32>load<u8>(a + at) / 255, screen);
      store<u8>(t + at, roundByte(128 + own * left + other * light(<f32>load<u8>(tl + (at << 1)), screen)));
    }
  }
}
