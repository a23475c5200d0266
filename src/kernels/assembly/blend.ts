import { allFull, clampByte, divide255, mix1, mix8, scale8, store8 } from './arithmetic';

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

/**
 * Lays a plane that is multiplied by its opacity over one value, in place; `pivot` as in `layPlane`. Up to fifteen samples behind the
 * `count` are read and written.
 */
export function backPlane(plane: usize, alpha: usize, count: i32, value: i32, pivot: i32): void {
  const nothing = i16x8.splat(<i16>pivot);
  const ground = i16x8.splat(<i16>value);
  for (let i: usize = 0; i < <usize>count; i += 16) {
    const at = plane + i;
    const opacity = v128.load(alpha + i);
    if (allFull(opacity)) continue;
    if (!v128.any_true(v128.or(opacity, v128.xor(v128.load(at), i8x16.splat(<i8>pivot))))) v128.store(at, i8x16.splat(<i8>value));
    else {
      back8(at, alpha + i, ground, nothing);
      back8(at + 8, alpha + i + 8, ground, nothing);
    }
  }
}

// @ts-ignore: decorator
@inline
function back8(at: usize, alpha: usize, ground: v128, nothing: v128): void {
  const left = mix8(ground, nothing, v128.load_ext<u8>(alpha));
  store8(at, i16x8.add(left, i16x8.sub(v128.load_ext<u8>(at), nothing)));
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
