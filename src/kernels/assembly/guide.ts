/*
 * The guided filter: opacity at chroma's resolution brought to luma's, with the edges that luma shows.
 */
import { allFull, highFloats, lowFloats, roundByte, storeRounded } from './arithmetic';

/**
 * Coefficients of the guided filter (K. He, J. Sun, X. Tang, "Guided Image Filtering", 2010) over squares of three by three:
 * opacity near each sample is `slope * guide + offset`, by least squares. `calm` is the guide's variance that counts as noise.
 * Slopes and offsets are 32-bit floats, `(width + 4) * height` of each, a row being `width + 4` long with its last value repeated.
 * `scratch` holds `17 * (width + 16) + 64` bytes. Beyond the edges the outermost sample repeats.
 *
 * Most of a picture is wholly clear or wholly opaque, and then so is what comes out. `states` gets a byte for each eight samples of
 * each row: 0 or 255 where opacity is that in them and around them, else 1; coefficients are written only where one of these is near.
 * A byte before the opacity plane and before the states, and sixteen behind them, are read.
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
  const last = <usize>(width - 1) << 2;
  const blocks = (width + 7) >> 3;
  const tasks = scratch + (room << 2) + 16;
  findUniform(alpha, width, height, blocks, states);
  for (let y = 0; y < height; y++) {
    const up = max(0, y - 1);
    const down = min(height - 1, y + 1);
    const above = <usize>(up * width);
    const here = <usize>(y * width);
    const below = <usize>(down * width);
    const state = states + <usize>(y * blocks);
    findTasks(states + <usize>(up * blocks), state, states + <usize>(down * blocks), blocks, tasks);
    for (let b: usize = 0; b < <usize>blocks; b++) {
      if (!load<u64>(tasks + b)) {
        b += 7;
        continue;
      }
      if (!(load<u8>(tasks + b) & SUMS)) continue;
      const x = b << 3;
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
    for (let b: usize = 0; b < <usize>blocks; b++) {
      if (!load<u64>(tasks + b)) {
        b += 7;
        continue;
      }
      const task = load<u8>(tasks + b);
      const at = b << 5;
      // A row's last block may be no more than half as long, and what follows it is the row's end repeated.
      const half = (b << 3) + 4 >= <usize>width;
      if (task & COEFFICIENTS) {
        coefficients(g + at, a + at, ga + at, gg + at, calm, slopes + to + at, offsets + to + at);
        if (!half) coefficients(g + at + 16, a + at + 16, ga + at + 16, gg + at + 16, calm, slopes + to + at + 16, offsets + to + at + 16);
      } else if (task & CONSTANT) {
        const offset = f32x4.splat(<f32>load<u8>(state + b));
        v128.store(slopes + to + at, f32x4.splat(0));
        v128.store(offsets + to + at, offset);
        if (!half) {
          v128.store(slopes + to + at, f32x4.splat(0), 16);
          v128.store(offsets + to + at, offset, 16);
        }
      }
    }
    for (let k: usize = 4; k <= 16; k += 4) {
      store<f32>(slopes + to + last + k, load<f32>(slopes + to + last));
      store<f32>(offsets + to + last + k, load<f32>(offsets + to + last));
    }
  }
}

/** Slopes and offsets of four samples from the sums around them. */
// @ts-ignore: decorator
@inline
function coefficients(g: usize, a: usize, ga: usize, gg: usize, calm: f32, slopes: usize, offsets: usize): void {
  const ninth = f32x4.splat(<f32>(1.0 / 9.0));
  const mg = f32x4.mul(three(g), ninth);
  const ma = f32x4.mul(three(a), ninth);
  const covariance = f32x4.sub(f32x4.mul(three(ga), ninth), f32x4.mul(mg, ma));
  const variance = f32x4.max(f32x4.splat(0), f32x4.sub(f32x4.mul(three(gg), ninth), f32x4.mul(mg, mg)));
  const slope = f32x4.div(covariance, f32x4.add(variance, f32x4.splat(calm)));
  v128.store(slopes, slope);
  v128.store(offsets, f32x4.sub(ma, f32x4.mul(slope, mg)));
}

const MIXED: u8 = 1;

/** What is to be done for a block: write that its coefficients are constant, work them out, sum up the samples above each other. */
const CONSTANT: u8 = 1;
const COEFFICIENTS: u8 = 2;
const SUMS: u8 = 4;

/**
 * What is to be done for each block of a row, by its states and those of the rows beside it. Mixed blocks need their coefficients; their
 * neighbours' sums; and whoever brings opacity up there reads the rows beside it and one place to the right.
 */
// @ts-ignore: decorator
@inline
function findTasks(above: usize, here: usize, below: usize, blocks: i32, tasks: usize): void {
  for (let b: usize = 0; b < <usize>blocks; b += 16) {
    const own = mixedFrom(here + b);
    const left = mixedFrom(here + b - 1);
    const right = mixedFrom(here + b + 1);
    const near = v128.or(own, v128.or(mixedFrom(above + b), mixedFrom(below + b)));
    const nearLeft = v128.or(left, v128.or(mixedFrom(above + b - 1), mixedFrom(below + b - 1)));
    const constant = v128.and(v128.or(near, nearLeft), i8x16.splat(CONSTANT));
    const sums = v128.and(v128.or(own, v128.or(left, right)), i8x16.splat(SUMS));
    v128.store(tasks + b, v128.or(v128.or(constant, v128.and(own, i8x16.splat(COEFFICIENTS))), sums));
  }
}

/** Which of sixteen blocks are mixed. */
// @ts-ignore: decorator
@inline
function mixedFrom(states: usize): v128 {
  return i8x16.eq(v128.load(states), i8x16.splat(MIXED));
}

/** What of a row of opacity the coefficients of eight samples, and of the one after them, depend on: from one place before to nine on. */
// @ts-ignore: decorator
@inline
function seen(row: usize): v128 {
  return v128.load(row - 1);
}

/**
 * For each block of eight samples of each row whether what its coefficients depend on is all clear (0) or all opaque (255). What
 * stands beyond the ends of a row counts too, which may make a block mixed that is not.
 */
// @ts-ignore: decorator
@inline
function findUniform(alpha: usize, width: i32, height: i32, blocks: i32, states: usize): void {
  const beyond = i8x16(0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, -1, -1, -1, -1, -1);
  for (let y = 0; y < height; y++) {
    const above = alpha + <usize>(max(0, y - 1) * width);
    const here = alpha + <usize>(y * width);
    const below = alpha + <usize>(min(height - 1, y + 1) * width);
    for (let b: usize = 0; b < <usize>blocks; b++) {
      const x = b << 3;
      const r0 = seen(above + x);
      const r1 = seen(here + x);
      const r2 = seen(below + x);
      const any = v128.andnot(v128.or(v128.or(r0, r1), r2), beyond);
      const all = v128.or(v128.and(v128.and(r0, r1), r2), beyond);
      store<u8>(states + <usize>(y * blocks) + b, !v128.any_true(any) ? 0 : allFull(all) ? 255 : MIXED);
    }
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
    for (; x + 16 <= width; x += 16) {
      const block = <usize>(x >> 4);
      const uniform = load<u8>(nearStates + block);
      if (uniform != MIXED && uniform == load<u8>(farStates + block)) v128.store(to + <usize>x, i8x16.splat(uniform));
      else {
        refine8(row + <usize>x, slopes, offsets, near + <usize>(x << 1), far + <usize>(x << 1), gains, lifts, to + <usize>x);
        refine8(row + <usize>x + 8, slopes, offsets, near + <usize>(x << 1) + 16, far + <usize>(x << 1) + 16, gains, lifts, to + <usize>x + 8);
      }
    }
    if (x == width) continue;
    const uniform = load<u8>(nearStates + <usize>(x >> 4));
    if (uniform != MIXED && uniform == load<u8>(farStates + <usize>(x >> 4))) {
      memory.fill(to + <usize>x, uniform, <usize>(width - x));
      continue;
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

/** Eight samples, from the coefficients of four and the one after them; `near` and `far` are places in both planes of these. */
// @ts-ignore: decorator
@inline
function refine8(luma: usize, slopes: usize, offsets: usize, near: usize, far: usize, gains: v128, lifts: v128, to: usize): void {
  const half = f32x4.splat(0.5);
  const s0 = between(slopes + near, slopes + far);
  const o0 = between(offsets + near, offsets + far);
  const sm = f32x4.mul(f32x4.add(s0, between(slopes + near + 4, slopes + far + 4)), half);
  const om = f32x4.mul(f32x4.add(o0, between(offsets + near + 4, offsets + far + 4)), half);
  const ys = v128.load_ext<u8>(luma);
  const low = f32x4.add(f32x4.mul(v128.shuffle<i32>(s0, sm, 0, 4, 1, 5), lowFloats(ys)), v128.shuffle<i32>(o0, om, 0, 4, 1, 5));
  const high = f32x4.add(f32x4.mul(v128.shuffle<i32>(s0, sm, 2, 6, 3, 7), highFloats(ys)), v128.shuffle<i32>(o0, om, 2, 6, 3, 7));
  storeRounded(to, f32x4.add(f32x4.mul(low, gains), lifts), f32x4.add(f32x4.mul(high, gains), lifts));
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
