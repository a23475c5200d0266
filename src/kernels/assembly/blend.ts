// @ts-ignore: decorator
@inline
function mix8(target: v128, source: v128, alpha: v128): v128 {
  // (t * (255 - a) + s * a + 127) / 255 in unsigned 16 bits, divided exactly by (n + (n >> 8) + 1) >> 8.
  const rest = i16x8.sub(i16x8.splat(255), alpha);
  const sum = i16x8.add(i16x8.add(i16x8.mul(target, rest), i16x8.mul(source, alpha)), i16x8.splat(127));
  return i16x8.shr_u(i16x8.add(i16x8.add(sum, i16x8.shr_u(sum, 8)), i16x8.splat(1)), 8);
}

// @ts-ignore: decorator
@inline
function scale8(alpha: v128, by: v128): v128 {
  const product = i16x8.add(i16x8.mul(alpha, by), i16x8.splat(127));
  return i16x8.shr_u(i16x8.add(i16x8.add(product, i16x8.shr_u(product, 8)), i16x8.splat(1)), 8);
}

// @ts-ignore: decorator
@inline
function divide255(n: i32): i32 {
  return (n + (n >> 8) + 1) >> 8;
}

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
        const mixed = mix8(v128.load_ext<u8>(t + at), v128.load_ext<u8>(s + at), scale8(v128.load_ext<u8>(a + at), whole));
        v128.store64_lane(t + at, i8x16.narrow_i16x8_u(mixed, mixed), 0);
      }
    for (; x < width; x++) {
      const at = <usize>x;
      let weight = divide255(<i32>load<u8>(a + at) * opacity + 127);
      if (light != 0) weight = divide255(weight * <i32>load<u8>(l + <usize>(x * lightStep)) + 127);
      store<u8>(t + at, <u8>divide255(<i32>load<u8>(t + at) * (255 - weight) + <i32>load<u8>(s + at) * weight + 127));
    }
  }
}

/** Blends `count` samples over others with one weight, 0 to 255, the same everywhere. */
export function mixPlane(target: usize, source: usize, count: i32, weight: i32): void {
  const alpha = i16x8.splat(<i16>weight);
  let i = 0;
  for (; i + 8 <= count; i += 8) {
    const at = <usize>i;
    const mixed = mix8(v128.load_ext<u8>(target + at), v128.load_ext<u8>(source + at), alpha);
    v128.store64_lane(target + at, i8x16.narrow_i16x8_u(mixed, mixed), 0);
  }
  for (; i < count; i++) {
    const at = <usize>i;
    store<u8>(target + at, <u8>divide255(<i32>load<u8>(target + at) * (255 - weight) + <i32>load<u8>(source + at) * weight + 127));
  }
}

/** Fills a rectangle of a plane with one value. */
export function fillPlane(target: usize, stride: i32, width: i32, height: i32, value: i32): void {
  for (let y = 0; y < height; y++) memory.fill(target + <usize>(y * stride), <u8>value, <usize>width);
}

/** Multiplies an opacity plane by another, both of `count` samples, 255 standing for 1. */
export function multiplyPlane(target: usize, by: usize, count: i32): void {
  let i = 0;
  for (; i + 8 <= count; i += 8) {
    const at = <usize>i;
    const product = scale8(v128.load_ext<u8>(target + at), v128.load_ext<u8>(by + at));
    v128.store64_lane(target + at, i8x16.narrow_i16x8_u(product, product), 0);
  }
  for (; i < count; i++)
    store<u8>(target + <usize>i, <u8>divide255(<i32>load<u8>(target + <usize>i) * <i32>load<u8>(by + <usize>i) + 127));
}

/** Replaces each sample by its entry of a table of 256 bytes. */
export function lookUpPlane(plane: usize, stride: i32, width: i32, height: i32, table: usize): void {
  for (let y = 0; y < height; y++) {
    const row = plane + <usize>(y * stride);
    for (let x = 0; x < width; x++) store<u8>(row + <usize>x, load<u8>(table + <usize>load<u8>(row + <usize>x)));
  }
}
