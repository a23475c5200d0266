/*
 * What a presenter without a wall needs: the background around them without their own colours, opacity that noise does not make crawl,
 * and colours that are warmer or cooler.
 */
import { divideLanes, highFloats, lowFloats, mix1, roundByte, scale8, store8, storeRounded } from './arithmetic';

/** `count` samples around `pivot` divided by weights of which 255 stands for 1; where there is no weight they become `pivot`. */
export function dividePlane(plane: usize, weights: usize, count: i32, pivot: i32): void {
  const middle: f32 = <f32>pivot;
  let i = 0;
  for (; i + 8 <= count; i += 8) {
    const at = plane + <usize>i;
    const by = v128.load_ext<u8>(weights + <usize>i);
    const samples = v128.load_ext<u8>(at);
    storeRounded(at, divided(lowFloats(samples), lowFloats(by), middle), divided(highFloats(samples), highFloats(by), middle));
  }
  for (; i < count; i++) {
    const at = plane + <usize>i;
    const by: f32 = <f32>load<u8>(weights + <usize>i);
    store<u8>(at, by == 0 ? <u8>pivot : roundByte(((<f32>load<u8>(at) - middle) * 255) / by + middle));
  }
}

// @ts-ignore: decorator
@inline
function divided(samples: v128, by: v128, middle: f32): v128 {
  const pivot = f32x4.splat(middle);
  const none = f32x4.eq(by, f32x4.splat(0));
  const quotient = f32x4.div(f32x4.mul(f32x4.sub(samples, pivot), f32x4.splat(255)), f32x4.max(by, f32x4.splat(1)));
  return f32x4.add(v128.andnot(quotient, none), pivot);
}

/** The lesser of `count` samples of two planes, in the first one. */
export function leastPlane(plane: usize, other: usize, count: i32): void {
  let i = 0;
  for (; i + 16 <= count; i += 16) v128.store(plane + <usize>i, i8x16.min_u(v128.load(plane + <usize>i), v128.load(other + <usize>i)));
  for (; i < count; i++) store<u8>(plane + <usize>i, min(load<u8>(plane + <usize>i), load<u8>(other + <usize>i)));
}

/** Luma that differs by this much shows something else: 255 divided by it. */
const CHANGE: i32 = 23;

/** Opacity that changes by much is no noise: 255 divided by that. */
const STEP: i32 = 8;

/**
 * Brings `count` opacities towards those of the picture before: where luma has not changed, mean of a sample and its neighbours, only
 * `fresh` of 255 of what is new is taken; the more it, or the opacity itself, has changed, the more. One byte before and behind each luma plane is read.
 */
export function steadyAlpha(alpha: usize, before: usize, luma: usize, lumaBefore: usize, count: i32, fresh: i32): void {
  const least = i16x8.splat(<i16>fresh);
  const rest = i16x8.splat(<i16>(255 - fresh));
  const most = i16x8.splat(255);
  let i = 0;
  for (; i + 8 <= count; i += 8) {
    const at = <usize>i;
    if (load<u64>(alpha + at) == load<u64>(before + at)) continue;
    const change = i16x8.shr_u(i16x8.abs(i16x8.sub(three(luma + at), three(lumaBefore + at))), 2);
    const old = v128.load_ext<u8>(before + at);
    const own = v128.load_ext<u8>(alpha + at);
    const lit = i16x8.mul(i16x8.min_u(change, i16x8.splat(64)), i16x8.splat(<i16>CHANGE));
    const seen = i16x8.mul(i16x8.min_u(i16x8.abs(i16x8.sub(own, old)), i16x8.splat(64)), i16x8.splat(<i16>STEP));
    const moved = i16x8.min_u(most, i16x8.max_u(lit, seen));
    const share = i16x8.add(least, scale8(scale8(moved, moved), rest));
    const kept = i16x8.sub(most, share);
    store8(alpha + at, divideLanes(i16x8.add(i16x8.add(i16x8.mul(old, kept), i16x8.mul(own, share)), i16x8.splat(127))));
  }
  for (; i < count; i++) {
    const at = <usize>i;
    const change = abs(sum3(luma + at) - sum3(lumaBefore + at)) >> 2;
    const step = abs(<i32>load<u8>(alpha + at) - <i32>load<u8>(before + at));
    const moved = min(255, max(min(change, 64) * CHANGE, min(step, 64) * STEP));
    const share = fresh + mix1(0, 255 - fresh, mix1(0, moved, moved));
    store<u8>(alpha + at, <u8>mix1(<i32>load<u8>(before + at), <i32>load<u8>(alpha + at), share));
  }
}

// @ts-ignore: decorator
@inline
function three(at: usize): v128 {
  const middle = v128.load_ext<u8>(at);
  return i16x8.add(i16x8.add(v128.load_ext<u8>(at - 1), v128.load_ext<u8>(at + 1)), i16x8.add(middle, middle));
}

// @ts-ignore: decorator
@inline
function sum3(at: usize): i32 {
  return <i32>load<u8>(at - 1) + 2 * <i32>load<u8>(at) + <i32>load<u8>(at + 1);
}

/**
 * Adds to a plane of colour differences `amount` times the light of each sample, 1 standing for white: a change of the light's colour,
 * which leaves black black. Luma has twice the columns and rows and is multiplied by the opacity, as the colour is.
 */
export function tintPlane(
  chroma: usize, stride: i32, width: i32, height: i32, luma: usize, lumaStride: i32, lumaWidth: i32, lumaHeight: i32, amount: f32,
): void {
  for (let y = 0; y < height; y++) {
    const row = luma + <usize>(min(2 * y, lumaHeight - 1) * lumaStride);
    const next = luma + <usize>(min(2 * y + 1, lumaHeight - 1) * lumaStride);
    for (let x = 0; x < width; x++) {
      const at = chroma + <usize>(y * stride + x);
      const left = <usize>min(2 * x, lumaWidth - 1);
      const right = <usize>min(2 * x + 1, lumaWidth - 1);
      const sum = <i32>load<u8>(row + left) + <i32>load<u8>(row + right) + <i32>load<u8>(next + left) + <i32>load<u8>(next + right);
      const light: f32 = max<f32>(0, (<f32>sum * 0.25 - 16) / 219);
      store<u8>(at, roundByte(<f32>load<u8>(at) + amount * light));
    }
  }
}
