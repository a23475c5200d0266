/*
 * Chroma key on the two chroma planes: how far a pixel's colour difference lies
 * from the wall's decides how opaque it is.
 */

/** Opacity from chroma distance: 0 up to `inner`, 255 from `outer`, a straight line between. Distances in code values. */
export function keyAlpha(u: usize, v: usize, alpha: usize, count: i32, keyU: f32, keyV: f32, inner: f32, outer: f32): void {
  const scale = 255.0 / max(outer - inner, <f32>0.5);
  const ku = f32x4.splat(keyU);
  const kv = f32x4.splat(keyV);
  const from = f32x4.splat(inner);
  const slope = f32x4.splat(<f32>scale);
  const zero = f32x4.splat(0);
  const full = f32x4.splat(255);
  const half = f32x4.splat(0.5);
  let i = 0;
  for (; i + 8 <= count; i += 8) {
    const u16 = v128.load_ext<u8>(u + <usize>i);
    const v16 = v128.load_ext<u8>(v + <usize>i);
    const lowU = f32x4.sub(f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(u16)), ku);
    const highU = f32x4.sub(f32x4.convert_i32x4_s(i32x4.extend_high_i16x8_u(u16)), ku);
    const lowV = f32x4.sub(f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(v16)), kv);
    const highV = f32x4.sub(f32x4.convert_i32x4_s(i32x4.extend_high_i16x8_u(v16)), kv);
    const lowD = f32x4.sqrt(f32x4.add(f32x4.mul(lowU, lowU), f32x4.mul(lowV, lowV)));
    const highD = f32x4.sqrt(f32x4.add(f32x4.mul(highU, highU), f32x4.mul(highV, highV)));
    const lowA = f32x4.min(full, f32x4.max(zero, f32x4.mul(f32x4.sub(lowD, from), slope)));
    const highA = f32x4.min(full, f32x4.max(zero, f32x4.mul(f32x4.sub(highD, from), slope)));
    const words = i16x8.narrow_i32x4_u(i32x4.trunc_sat_f32x4_s(f32x4.add(lowA, half)), i32x4.trunc_sat_f32x4_s(f32x4.add(highA, half)));
    v128.store64_lane(alpha + <usize>i, i8x16.narrow_i16x8_u(words, words), 0);
  }
  for (; i < count; i++) {
    const du = <f32>load<u8>(u + <usize>i) - keyU;
    const dv = <f32>load<u8>(v + <usize>i) - keyV;
    const a = (sqrt<f32>(du * du + dv * dv) - inner) * <f32>scale;
    store<u8>(alpha + <usize>i, <u8>(min<f32>(255, max<f32>(0, a)) + 0.5));
  }
}

/**
 * Takes the wall's light out of what stays: a pixel's colour difference along the
 * wall's direction is brought down to `allowed` times what it has across it.
 * `directionU`, `directionV` is the wall's direction from grey, of length 1.
 */
export function suppressSpill(u: usize, v: usize, count: i32, directionU: f32, directionV: f32, allowed: f32): void {
  for (let i = 0; i < count; i++) {
    const du = <f32>load<u8>(u + <usize>i) - 128;
    const dv = <f32>load<u8>(v + <usize>i) - 128;
    const along = du * directionU + dv * directionV;
    if (along <= 0) continue;
    const across = abs<f32>(dv * directionU - du * directionV);
    const excess = along - across * allowed;
    if (excess <= 0) continue;
    store<u8>(u + <usize>i, <u8>(128.5 + du - excess * directionU));
    store<u8>(v + <usize>i, <u8>(128.5 + dv - excess * directionV));
  }
}
