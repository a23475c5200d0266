/*
 * Chroma key on planar 4:2:0: how far a pixel's colour difference lies from the wall's along the wall's own direction says how
 * opaque it is. The wall is a picture too (even if of one colour), so that uneven light is no difference. Opacity comes out at
 * chroma resolution; a guided filter brings it to luma's, with the edges that luma shows.
 */
import { allFull, highFloats, lowFloats, roundByte, store8, storeRounded } from './arithmetic';

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

/**
 * Opacity of chroma samples: 0 up to `inner` code values from the wall along its own direction, 255 from `outer`, a straight line
 * between. `across` is how far to the side of the wall's direction a mixture with it may lie, as a share of the wall's own chroma.
 */
export function keyAlpha(
  u: usize, v: usize, wallU: usize, wallV: usize, alpha: usize, count: i32, inner: f32, outer: f32, across: f32,
): void {
  const slope = f32x4.splat(255.0 / max(outer - inner, <f32>0.5));
  const from = f32x4.splat(inner);
  const side = f32x4.splat(across);
  // The last few samples are done once more with those before them; planes are at least eight long or have room behind them.
  for (let i = 0; i < count; i += 8) {
    const at = <usize>i;
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
 * Halves a plane in both directions to where chroma stands in 4:2:0, sited left: columns by 1 2 1 around every second one, rows
 * by the mean of two. Odd sides keep their last sample.
 */
export function halvePlane(source: usize, stride: i32, width: i32, height: i32, target: usize): void {
  const half = (width + 1) >> 1;
  for (let y = 0; y < (height + 1) >> 1; y++) {
    const a = source + <usize>(2 * y * stride);
    const b = source + <usize>(min(2 * y + 1, height - 1) * stride);
    const to = target + <usize>(y * half);
    let x = 0;
    // Eight at a time from the second on: the first has nothing to its left.
    store<u8>(to, halved(a, b, 0, width));
    for (x = 1; 2 * x + 16 < width; x += 8) {
      const at = <usize>(2 * x);
      const lefts = i16x8.add(everySecond(a + at - 1), everySecond(b + at - 1));
      const mids = i16x8.add(everySecond(a + at), everySecond(b + at));
      const rights = i16x8.add(everySecond(a + at + 1), everySecond(b + at + 1));
      const sum = i16x8.add(i16x8.add(i16x8.add(lefts, rights), i16x8.add(mids, mids)), i16x8.splat(4));
      store8(to + <usize>x, i16x8.shr_u(sum, 3));
    }
    for (; x < half; x++) store<u8>(to + <usize>x, halved(a, b, x, width));
  }
}

// @ts-ignore: decorator
@inline
function everySecond(at: usize): v128 {
  return v128.and(v128.load(at), i16x8.splat(255));
}

// @ts-ignore: decorator
@inline
function halved(a: usize, b: usize, x: i32, width: i32): u8 {
  const left = <usize>max(0, 2 * x - 1);
  const mid = <usize>(2 * x);
  const right = <usize>min(width - 1, 2 * x + 1);
  const sum =
    <i32>load<u8>(a + left) + <i32>load<u8>(b + left) + 2 * (<i32>load<u8>(a + mid) + <i32>load<u8>(b + mid)) +
    <i32>load<u8>(a + right) + <i32>load<u8>(b + right);
  return <u8>((sum + 4) >> 3);
}

/**
 * Coefficients of the guided filter (K. He, J. Sun, X. Tang, "Guided Image Filtering", 2010) over squares of three by three:
 * opacity near each sample is `slope * guide + offset`, by least squares. `calm` is the guide's variance that counts as noise.
 * Slopes and offsets are 32-bit floats, `(width + 4) * height` of each, a row being `width + 4` long with its last value repeated.
 * `scratch` holds `17 * (width + 16)` bytes. Beyond the edges the outermost sample repeats.
 *
 * Most of a picture is wholly clear or wholly opaque, and then so is what comes out. `states` gets a byte for each eight samples of
 * each row: 0 or 255 where opacity is that in them and around them, else 1. Eight bytes behind the opacity plane are read.
 */
export function guideAlpha(
  guide: usize, alpha: usize, width: i32, height: i32, calm: f32, slopes: usize, offsets: usize, states: usize, scratch: usize,
): void {
  // Sums down three rows: of guide, opacity, their product and the guide's square; one place to the left is kept free.
  const room = <usize>(width + 16) << 2;
  const g = scratch + 4;
  const a = g + room;
  const ga = a + room;
  const gg = ga + room;
  const own = gg + room;
  const last = <usize>(width - 1) << 2;
  const blocks = (width + 7) >> 3;
  for (let y = 0; y < height; y++) {
    const above = <usize>(max(0, y - 1) * width);
    const here = <usize>(y * width);
    const below = <usize>(min(height - 1, y + 1) * width);
    const state = states + <usize>(y * blocks);
    findUniform(alpha + above, alpha + here, alpha + below, blocks, own, state);
    for (let x: usize = 0; x < <usize>width; x += 8) {
      const block = x >> 3;
      // Sums are needed by the blocks beside as well.
      if (
        load<u8>(state + block) != MIXED && load<u8>(state + (block > 0 ? block - 1 : 0)) != MIXED &&
        load<u8>(state + min(block + 1, <usize>blocks - 1)) != MIXED
      )
        continue;
      const g0 = v128.load_ext<u8>(guide + above + x);
      const g1 = v128.load_ext<u8>(guide + here + x);
      const g2 = v128.load_ext<u8>(guide + below + x);
      const a0 = v128.load_ext<u8>(alpha + above + x);
      const a1 = v128.load_ext<u8>(alpha + here + x);
      const a2 = v128.load_ext<u8>(alpha + below + x);
      storeFloats(g + (x << 2), i16x8.add(i16x8.add(g0, g1), g2));
      storeFloats(a + (x << 2), i16x8.add(i16x8.add(a0, a1), a2));
      storeProducts(ga + (x << 2), g0, a0, g1, a1, g2, a2);
      storeProducts(gg + (x << 2), g0, g0, g1, g1, g2, g2);
    }
    repeatEnds(g, last);
    repeatEnds(a, last);
    repeatEnds(ga, last);
    repeatEnds(gg, last);
    const to = <usize>(y * (width + 4)) << 2;
    const ninth = f32x4.splat(<f32>(1.0 / 9.0));
    for (let x: usize = 0; x < <usize>width; x += 4) {
      const at = x << 2;
      const uniform = load<u8>(state + (x >> 3));
      if (uniform != MIXED) {
        v128.store(slopes + to + at, f32x4.splat(0));
        v128.store(offsets + to + at, f32x4.splat(<f32>uniform));
        continue;
      }
      const mg = f32x4.mul(three(g + at), ninth);
      const ma = f32x4.mul(three(a + at), ninth);
      const covariance = f32x4.sub(f32x4.mul(three(ga + at), ninth), f32x4.mul(mg, ma));
      const variance = f32x4.max(f32x4.splat(0), f32x4.sub(f32x4.mul(three(gg + at), ninth), f32x4.mul(mg, mg)));
      const slope = f32x4.div(covariance, f32x4.add(variance, f32x4.splat(calm)));
      v128.store(slopes + to + at, slope);
      v128.store(offsets + to + at, f32x4.sub(ma, f32x4.mul(slope, mg)));
    }
    for (let k: usize = 4; k <= 16; k += 4) {
      store<f32>(slopes + to + last + k, load<f32>(slopes + to + last));
      store<f32>(offsets + to + last + k, load<f32>(offsets + to + last));
    }
  }
}

const MIXED: u8 = 1;

/** For each block of eight samples whether it, the rows above and below and the blocks beside are all clear (0) or all opaque (255). */
// @ts-ignore: decorator
@inline
function findUniform(above: usize, here: usize, below: usize, blocks: i32, own: usize, state: usize): void {
  for (let b: usize = 0; b < <usize>blocks; b++) {
    const x = b << 3;
    const r0 = load<u64>(above + x);
    const r1 = load<u64>(here + x);
    const r2 = load<u64>(below + x);
    store<u8>(own + b, (r0 | r1 | r2) == 0 ? 0 : (r0 & r1 & r2) == u64.MAX_VALUE ? 255 : MIXED);
  }
  for (let b: usize = 0; b < <usize>blocks; b++) {
    const it = load<u8>(own + b);
    const before = load<u8>(own + (b > 0 ? b - 1 : 0));
    const after = load<u8>(own + min(b + 1, <usize>blocks - 1));
    store<u8>(state + b, it == before && it == after ? it : MIXED);
  }
}

// @ts-ignore: decorator
@inline
function storeFloats(at: usize, words: v128): void {
  v128.store(at, lowFloats(words));
  v128.store(at, highFloats(words), 16);
}

// @ts-ignore: decorator
@inline
function storeProducts(at: usize, p0: v128, q0: v128, p1: v128, q1: v128, p2: v128, q2: v128): void {
  const low = i32x4.add(i32x4.add(i32x4.extmul_low_i16x8_u(p0, q0), i32x4.extmul_low_i16x8_u(p1, q1)), i32x4.extmul_low_i16x8_u(p2, q2));
  const high = i32x4.add(i32x4.add(i32x4.extmul_high_i16x8_u(p0, q0), i32x4.extmul_high_i16x8_u(p1, q1)), i32x4.extmul_high_i16x8_u(p2, q2));
  v128.store(at, f32x4.convert_i32x4_s(low));
  v128.store(at, f32x4.convert_i32x4_s(high), 16);
}

// @ts-ignore: decorator
@inline
function repeatEnds(row: usize, last: usize): void {
  store<f32>(row - 4, load<f32>(row));
  store<f32>(row + last + 4, load<f32>(row + last));
}

// @ts-ignore: decorator
@inline
function three(at: usize): v128 {
  return f32x4.add(f32x4.add(v128.load(at - 4), v128.load(at)), v128.load(at + 4));
}

/**
 * Opacity at luma's resolution from the coefficients of `guideAlpha`, brought up linearly, and from luma itself. What is within `edge`
 * (a share of 255) of clear or opaque becomes so. `states` are those of `guideAlpha`.
 */
export function refineAlpha(
  luma: usize, stride: i32, width: i32, height: i32, slopes: usize, offsets: usize, states: usize, edge: f32, alpha: usize,
): void {
  const halfWidth = (width + 1) >> 1;
  const halfHeight = (height + 1) >> 1;
  const rowLength = halfWidth + 4;
  const blocks = (halfWidth + 7) >> 3;
  const gain: f32 = 1 / (1 - 2 * edge);
  const lift: f32 = -edge * 255 * gain;
  const gains = f32x4.splat(gain);
  const lifts = f32x4.splat(lift);
  for (let y = 0; y < height; y++) {
    const other = max(0, min(halfHeight - 1, (y >> 1) + (y & 1 ? 1 : -1)));
    const near = <usize>((y >> 1) * rowLength) << 2;
    const far = <usize>(other * rowLength) << 2;
    const nearStates = states + <usize>((y >> 1) * blocks);
    const farStates = states + <usize>(other * blocks);
    const row = luma + <usize>(y * stride);
    const to = alpha + <usize>(y * width);
    let x = 0;
    for (; x + 8 <= width; x += 8) {
      const uniform = load<u8>(nearStates + <usize>(x >> 4));
      if (uniform != MIXED && uniform == load<u8>(farStates + <usize>(x >> 4))) {
        store<u64>(to + <usize>x, uniform ? u64.MAX_VALUE : 0);
        continue;
      }
      const at = <usize>(x >> 1) << 2;
      const s0 = between(slopes + near + at, slopes + far + at);
      const s1 = between(slopes + near + at + 4, slopes + far + at + 4);
      const o0 = between(offsets + near + at, offsets + far + at);
      const o1 = between(offsets + near + at + 4, offsets + far + at + 4);
      const half = f32x4.splat(0.5);
      const sm = f32x4.mul(f32x4.add(s0, s1), half);
      const om = f32x4.mul(f32x4.add(o0, o1), half);
      const ys = v128.load_ext<u8>(row + <usize>x);
      const low = f32x4.add(f32x4.mul(v128.shuffle<i32>(s0, sm, 0, 4, 1, 5), lowFloats(ys)), v128.shuffle<i32>(o0, om, 0, 4, 1, 5));
      const high = f32x4.add(f32x4.mul(v128.shuffle<i32>(s0, sm, 2, 6, 3, 7), highFloats(ys)), v128.shuffle<i32>(o0, om, 2, 6, 3, 7));
      storeRounded(to + <usize>x, f32x4.add(f32x4.mul(low, gains), lifts), f32x4.add(f32x4.mul(high, gains), lifts));
    }
    for (; x < width; x++) {
      const at = <usize>(x >> 1) << 2;
      const next = at + (x & 1 ? 4 : 0);
      const s = (one(slopes + near + at, slopes + far + at) + one(slopes + near + next, slopes + far + next)) * 0.5;
      const o = (one(offsets + near + at, offsets + far + at) + one(offsets + near + next, offsets + far + next)) * 0.5;
      store<u8>(to + <usize>x, roundByte((s * <f32>load<u8>(row + <usize>x) + o) * gain + lift));
    }
  }
}

/** Three quarters of the nearer row, one of the farther. */
// @ts-ignore: decorator
@inline
function between(near: usize, far: usize): v128 {
  return f32x4.add(f32x4.mul(v128.load(near), f32x4.splat(0.75)), f32x4.mul(v128.load(far), f32x4.splat(0.25)));
}

// @ts-ignore: decorator
@inline
function one(near: usize, far: usize): f32 {
  return load<f32>(near) * 0.75 + load<f32>(far) * 0.25;
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
