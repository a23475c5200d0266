/*
 * Chroma key on planar 4:2:0: how far a pixel's colour difference lies from the wall's along the wall's own direction says how
 * opaque it is. The wall is a picture too (even if of one colour), so that uneven light is no difference. Opacity comes out at
 * chroma resolution; the guided filter (guide.ts) brings it to luma's, with the edges that luma shows.
 */
import { allFull, highFloats, lowFloats, store8, storeRounded } from './arithmetic';

// @ts-ignore: decorator
@inline
function distance(u: v128, v: v128, wallU: v128, wallV: v128, across: v128): v128 {
  const middle = f32x4.splat(128);
  const zero = f32x4.splat(0);
  const ku = f32x4.sub(wallU, middle);
  const kv = f32x4.sub(wallV, middle);
  const square = f32x4.max(f32x4.splat(1), f32x4.add(f32x4.mul(ku, ku), f32x4.mul(kv, kv)));
  const reciprocal = f32x4.div(f32x4.splat(1), f32x4.sqrt(square));
  const length = f32x4.mul(square, reciprocal);
  const du = f32x4.sub(u, middle);
  const dv = f32x4.sub(v, middle);
  const along = f32x4.mul(f32x4.add(f32x4.mul(du, ku), f32x4.mul(dv, kv)), reciprocal);
  const aside = f32x4.mul(f32x4.abs(f32x4.sub(f32x4.mul(dv, ku), f32x4.mul(du, kv))), reciprocal);
  // What lies far to the side is of another colour, however much it has of the wall's direction.
  const other = f32x4.max(zero, f32x4.sub(aside, f32x4.mul(length, across)));
  return f32x4.add(f32x4.sub(length, along), other);
}

/** How far the bytes of two vectors are from each other. */
// @ts-ignore: decorator
@inline
function apart(a: v128, b: v128): v128 {
  return i8x16.sub(i8x16.max_u(a, b), i8x16.min_u(a, b));
}

/**
 * Opacity of chroma samples: 0 up to `inner` code values from the wall along its own direction, 255 from `outer`, a straight line
 * between. `across` is how far to the side of the wall's direction a mixture with it may lie, as a share of the wall's own chroma. Up to
 * fifteen samples behind the `count` are read and written.
 */
export function keyAlpha(
  u: usize, v: usize, wallU: usize, wallV: usize, alpha: usize, count: i32, inner: f32, outer: f32, across: f32,
): void {
  const slope = f32x4.splat(255.0 / max(outer - inner, <f32>0.5));
  const from = f32x4.splat(inner);
  const side = f32x4.splat(across);
  // Colours that differ by no more than this in either direction are no further apart than `inner`; a wall without colour is at
  // a distance of 1 from itself.
  const close = i8x16.splat(<i8>min<f32>(inner / 2, 127));
  const quick = inner >= 1;
  for (let i = 0; i < count; i += 8) {
    const at = <usize>i;
    if (quick && (i & 8) == 0) {
      const far = v128.or(
        i8x16.gt_u(apart(v128.load(u + at), v128.load(wallU + at)), close),
        i8x16.gt_u(apart(v128.load(v + at), v128.load(wallV + at)), close),
      );
      if (!v128.any_true(far)) {
        v128.store(alpha + at, i8x16.splat(0));
        i += 8;
        continue;
      }
    }
    const us = v128.load_ext<u8>(u + at);
    const vs = v128.load_ext<u8>(v + at);
    const wus = v128.load_ext<u8>(wallU + at);
    const wvs = v128.load_ext<u8>(wallV + at);
    const low = distance(lowFloats(us), lowFloats(vs), lowFloats(wus), lowFloats(wvs), side);
    const high = distance(highFloats(us), highFloats(vs), highFloats(wus), highFloats(wvs), side);
    storeRounded(alpha + at, f32x4.mul(f32x4.sub(low, from), slope), f32x4.mul(f32x4.sub(high, from), slope));
  }
}

/**
 * Takes the wall's share out of samples: what is left is the presenter's own colour times their opacity, around `pivot` (0 for luma,
 * 128 for chroma) and no further from it than `most` times the opacity. Up to fifteen samples behind the `count` are read and written.
 */
export function unmixPlane(source: usize, wall: usize, alpha: usize, count: i32, pivot: i32, most: i32, target: usize): void {
  const least = i8x16.splat(pivot == 0 ? 0 : <i8>(pivot - most));
  for (let i: usize = 0; i < <usize>count; i += 16) {
    const opacity = v128.load(alpha + i);
    if (!v128.any_true(opacity)) v128.store(target + i, i8x16.splat(<i8>pivot));
    else if (allFull(opacity)) v128.store(target + i, i8x16.max_u(v128.load(source + i), least));
    else {
      unmix8(source + i, wall + i, alpha + i, pivot, most, target + i);
      unmix8(source + i + 8, wall + i + 8, alpha + i + 8, pivot, most, target + i + 8);
    }
  }
}

// @ts-ignore: decorator
@inline
function unmix8(source: usize, wall: usize, alpha: usize, pivot: i32, most: i32, target: usize): void {
  const nothing = i16x8.splat(<i16>pivot);
  const full = i16x8.splat(255);
  const a = v128.load_ext<u8>(alpha);
  const clear = i16x8.sub(full, a);
  // (pivot + (wall - pivot) * (1 - a)) without leaving what is positive.
  const walls = i16x8.add(i16x8.mul(v128.load_ext<u8>(wall), clear), i16x8.mul(nothing, a));
  const rounded = i16x8.add(walls, i16x8.splat(127));
  const share = i16x8.shr_u(i16x8.add(i16x8.add(rounded, i16x8.shr_u(rounded, 8)), i16x8.splat(1)), 8);
  const own = i16x8.sub(v128.load_ext<u8>(source), share);
  const bound = i16x8.shr_u(i16x8.add(i16x8.mul(a, i16x8.splat(<i16>most)), full), 8);
  const least = pivot == 0 ? i16x8.splat(0) : i16x8.neg(bound);
  store8(target, i16x8.add(i16x8.max_s(least, i16x8.min_s(bound, own)), nothing));
}

const GREY: u64 = 0x8080808080808080;

/**
 * Takes the wall's light out of what stays: a sample's colour difference along the wall's direction is brought down to
 * `allowed` times what it has across it. `directionU`, `directionV` is the wall's direction from grey, of length 1.
 */
export function suppressSpill(u: usize, v: usize, count: i32, directionU: f32, directionV: f32, allowed: f32): void {
  const du = f32x4.splat(directionU);
  const dv = f32x4.splat(directionV);
  const share = f32x4.splat(allowed);
  for (let i = 0; i < count; i += 8) {
    const at = <usize>i;
    // Grey has nothing of the wall.
    if (load<u64>(u + at) == GREY && load<u64>(v + at) == GREY) continue;
    const us = v128.load_ext<u8>(u + at);
    const vs = v128.load_ext<u8>(v + at);
    const lowExcess = excess(lowFloats(us), lowFloats(vs), du, dv, share);
    const highExcess = excess(highFloats(us), highFloats(vs), du, dv, share);
    storeRounded(u + at, f32x4.sub(lowFloats(us), f32x4.mul(lowExcess, du)), f32x4.sub(highFloats(us), f32x4.mul(highExcess, du)));
    storeRounded(v + at, f32x4.sub(lowFloats(vs), f32x4.mul(lowExcess, dv)), f32x4.sub(highFloats(vs), f32x4.mul(highExcess, dv)));
  }
}

// @ts-ignore: decorator
@inline
function excess(u: v128, v: v128, du: v128, dv: v128, allowed: v128): v128 {
  const middle = f32x4.splat(128);
  const cu = f32x4.sub(u, middle);
  const cv = f32x4.sub(v, middle);
  const along = f32x4.add(f32x4.mul(cu, du), f32x4.mul(cv, dv));
  const across = f32x4.abs(f32x4.sub(f32x4.mul(cv, du), f32x4.mul(cu, dv)));
  return f32x4.max(f32x4.splat(0), f32x4.sub(along, f32x4.mul(across, allowed)));
}
