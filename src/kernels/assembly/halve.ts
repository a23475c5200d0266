/*
 * Planes brought from luma's resolution to chroma's.
 */
import { store8 } from './arithmetic';

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
