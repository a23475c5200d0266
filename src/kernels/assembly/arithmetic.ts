/*
 * Arithmetic on eight samples in 16-bit lanes, and its scalar twin for what is left over. Division by 255 is exact for what
 * two bytes multiplied and half of 255 make: (n + (n >> 8) + 1) >> 8.
 */

// @ts-ignore: decorator
@inline
export function divide255(n: i32): i32 {
  return (n + (n >> 8) + 1) >> 8;
}

// @ts-ignore: decorator
@inline
export function divideLanes(n: v128): v128 {
  return i16x8.shr_u(i16x8.add(i16x8.add(n, i16x8.shr_u(n, 8)), i16x8.splat(1)), 8);
}

/** Whether sixteen bytes are all 255. */
// @ts-ignore: decorator
@inline
export function allFull(bytes: v128): bool {
  return i8x16.all_true(i8x16.eq(bytes, i8x16.splat(-1)));
}

/** What `alpha` of 255 leaves of `target`, and the rest of `source`. */
// @ts-ignore: decorator
@inline
export function mix8(target: v128, source: v128, alpha: v128): v128 {
  const rest = i16x8.sub(i16x8.splat(255), alpha);
  return divideLanes(i16x8.add(i16x8.add(i16x8.mul(target, rest), i16x8.mul(source, alpha)), i16x8.splat(127)));
}

// @ts-ignore: decorator
@inline
export function mix1(target: i32, source: i32, alpha: i32): i32 {
  return divide255(target * (255 - alpha) + source * alpha + 127);
}

// @ts-ignore: decorator
@inline
export function scale8(alpha: v128, by: v128): v128 {
  return divideLanes(i16x8.add(i16x8.mul(alpha, by), i16x8.splat(127)));
}

/** Stores eight 16-bit lanes as bytes, those outside of 0 to 255 brought to the end of the range. */
// @ts-ignore: decorator
@inline
export function store8(at: usize, lanes: v128): void {
  v128.store64_lane(at, i8x16.narrow_i16x8_u(lanes, lanes), 0);
}

// @ts-ignore: decorator
@inline
export function clampByte(n: i32): u8 {
  return <u8>max(0, min(255, n));
}

// @ts-ignore: decorator
@inline
export function roundByte(n: f32): u8 {
  return <u8>(min<f32>(255, max<f32>(0, n)) + 0.5);
}

/** Stores two times four numbers as eight bytes, rounded. */
// @ts-ignore: decorator
@inline
export function storeRounded(at: usize, low: v128, high: v128): void {
  const half = f32x4.splat(0.5);
  const words = i16x8.narrow_i32x4_s(
    i32x4.trunc_sat_f32x4_s(f32x4.floor(f32x4.add(low, half))),
    i32x4.trunc_sat_f32x4_s(f32x4.floor(f32x4.add(high, half))),
  );
  store8(at, words);
}

// @ts-ignore: decorator
@inline
export function lowFloats(words: v128): v128 {
  return f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(words));
}

// @ts-ignore: decorator
@inline
export function highFloats(words: v128): v128 {
  return f32x4.convert_i32x4_s(i32x4.extend_high_i16x8_u(words));
}
