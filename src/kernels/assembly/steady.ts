/*
 * A copy of a plane that takes over what changes, but for a codec's noise: of two pictures of the same, samples differ most where
 * letters are, and blocks keep their mean.
 */

import { sameRows } from './compare';

/** Side of the blocks that are judged. */
const BLOCK: i32 = 8;
/** So many greys are noise anywhere, and a quarter of what a block spans. */
const LEAST_MOST: i32 = 8;
/** Twice what the differences of a block may add up to, which is also up to three times what it spans. */
const LEAST_SUM: i32 = 160;

/** What is told of a block: twice as much noise as is usual may still be noise. */
const NOISE: i32 = 0;
const MUCH_NOISE: i32 = 1;
const CHANGE: i32 = 2;

/**
 * Takes a plane over into a copy of it, tile by tile, but for a codec's noise. `states` holds a byte for each tile, row by row: 0 for
 * one that was never copied, which is copied whole and set to 3; it is set to 2 where something was taken over, and to 4 where it was
 * hardly more than noise, and the copy went half of the way. `boxes` then tells for
 * each tile what that was, four bytes in blocks of 8 samples: left, top, right, bottom. Tiles are those of the copy; `left` and `top`
 * say where the plane lies in it, and what of a tile the plane does not cover stays; a tile that is covered in part takes over any
 * difference, since what is compared there may never have been a picture. Only tiles from `firstColumn` and `firstRow` to
 * before `endColumn` and `endRow` are looked at. With `strict` any difference is taken over.
 */
export function steadyPlane(
  source: usize, sourceStride: i32, width: i32, height: i32, left: i32, top: i32,
  copy: usize, copyStride: i32, copyHeight: i32, tileWidth: i32, tileHeight: i32, across: i32,
  firstColumn: i32, firstRow: i32, endColumn: i32, endRow: i32, strict: i32, states: usize, boxes: usize,
): void {
  for (let row = firstRow; row < endRow; row++) {
    const y0 = max(row * tileHeight, top);
    const y1 = min((row + 1) * tileHeight, top + height);
    for (let column = firstColumn; column < endColumn; column++) {
      const x0 = max(column * tileWidth, left);
      const x1 = min((column + 1) * tileWidth, left + width);
      if (x1 <= x0 || y1 <= y0) continue;
      const tile = row * across + column;
      const from = source + <usize>((y0 - top) * sourceStride + x0 - left);
      const to = copy + <usize>(y0 * copyStride + x0);
      if (!load<u8>(states + <usize>tile)) {
        take(from, sourceStride, to, copyStride, x1 - x0, y1 - y0);
        store<u8>(states + <usize>tile, 3);
        continue;
      }
      if (sameRows(from, sourceStride, to, copyStride, x1 - x0, y1 - y0)) continue;
      const judged =
        !strict && x0 == column * tileWidth && y0 == row * tileHeight &&
        x1 == min((column + 1) * tileWidth, copyStride) && y1 == min((row + 1) * tileHeight, copyHeight);
      let boxLeft = i32.MAX_VALUE;
      let boxTop = i32.MAX_VALUE;
      let boxRight = -1;
      let boxBottom = -1;
      let eased = judged;
      for (let y = 0; y < y1 - y0; y += BLOCK)
        for (let x = 0; x < x1 - x0; x += BLOCK) {
          const p = from + <usize>(y * sourceStride + x);
          const q = to + <usize>(y * copyStride + x);
          const w = min(BLOCK, x1 - x0 - x);
          const h = min(BLOCK, y1 - y0 - y);
          if (judged) {
            const what = judge(p, sourceStride, q, copyStride, w, h);
            if (what == NOISE) continue;
            if (what == CHANGE) eased = false;
          } else if (sameRows(p, sourceStride, q, copyStride, w, h)) continue;
          boxLeft = min(boxLeft, x);
          boxTop = min(boxTop, y);
          boxRight = max(boxRight, x + BLOCK);
          boxBottom = max(boxBottom, y + BLOCK);
        }
      if (boxRight < 0) continue;
      // What belongs to it may reach a little into the blocks around.
      boxLeft = max(0, boxLeft - BLOCK);
      boxTop = max(0, boxTop - BLOCK);
      boxRight = min(x1 - x0, boxRight + BLOCK);
      boxBottom = min(y1 - y0, boxBottom + BLOCK);
      const p = from + <usize>(boxTop * sourceStride + boxLeft);
      const q = to + <usize>(boxTop * copyStride + boxLeft);
      if (eased) approach(p, sourceStride, q, copyStride, boxRight - boxLeft, boxBottom - boxTop);
      else take(p, sourceStride, q, copyStride, boxRight - boxLeft, boxBottom - boxTop);
      const within = x0 - column * tileWidth;
      const below = y0 - row * tileHeight;
      store<u8>(states + <usize>tile, eased ? 4 : 2);
      store<u8>(boxes + <usize>(tile << 2), <u8>((boxLeft + within) / BLOCK));
      store<u8>(boxes + <usize>(tile << 2), <u8>((boxTop + below) / BLOCK), 1);
      store<u8>(boxes + <usize>(tile << 2), <u8>((boxRight + within + BLOCK - 1) / BLOCK), 2);
      store<u8>(boxes + <usize>(tile << 2), <u8>((boxBottom + below + BLOCK - 1) / BLOCK), 3);
    }
  }
}

// @ts-ignore: decorator
@inline
function take(from: usize, fromStride: i32, to: usize, toStride: i32, width: i32, height: i32): void {
  for (let y = 0; y < height; y++)
    memory.copy(to + <usize>(y * toStride), from + <usize>(y * fromStride), <usize>width);
}

/** Goes half of the way. */
// @ts-ignore: decorator
@inline
function approach(from: usize, fromStride: i32, to: usize, toStride: i32, width: i32, height: i32): void {
  for (let y = 0; y < height; y++) {
    const p = from + <usize>(y * fromStride);
    const q = to + <usize>(y * toStride);
    for (let x: usize = 0; x < <usize>width; x++) store<u8>(q + x, <u8>((<i32>load<u8>(p + x) + <i32>load<u8>(q + x) + 1) >> 1));
  }
}

/** What a block differs from its copy by. */
// @ts-ignore: decorator
@inline
function judge(a: usize, aStride: i32, b: usize, bStride: i32, width: i32, height: i32): i32 {
  let most = 0;
  let sum = 0;
  let low = 255;
  let high = 0;
  if (width == BLOCK) {
    let apart = i8x16.splat(0);
    let lows = i8x16.splat(-1);
    let highs = i8x16.splat(0);
    let sums = i16x8.splat(0);
    for (let y = 0; y < height; y++) {
      const p = v128.load64_zero(a + <usize>(y * aStride));
      const q = v128.load64_zero(b + <usize>(y * bStride));
      apart = i8x16.max_u(apart, v128.or(i8x16.sub_sat_u(p, q), i8x16.sub_sat_u(q, p)));
      lows = i8x16.min_u(lows, q);
      highs = i8x16.max_u(highs, q);
      sums = i16x8.add(sums, i16x8.sub(i16x8.extend_low_i8x16_u(p), i16x8.extend_low_i8x16_u(q)));
    }
    if (!v128.any_true(apart)) return NOISE;
    const pairs = i32x4.extadd_pairwise_i16x8_s(sums);
    sum = i32x4.extract_lane(pairs, 0) + i32x4.extract_lane(pairs, 1) + i32x4.extract_lane(pairs, 2) + i32x4.extract_lane(pairs, 3);
    most = largest(apart);
    high = largest(highs);
    // The upper half of each has no samples.
    low = 255 - largest(i8x16.sub(i8x16.splat(-1), i8x16.shuffle(lows, lows, 0, 1, 2, 3, 4, 5, 6, 7, 0, 1, 2, 3, 4, 5, 6, 7)));
  } else
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const p = <i32>load<u8>(a + <usize>(y * aStride + x));
        const q = <i32>load<u8>(b + <usize>(y * bStride + x));
        most = max(most, abs(p - q));
        low = min(low, q);
        high = max(high, q);
        sum += p - q;
      }
  const span = high - low;
  if (most <= max(LEAST_MOST, span >> 2) && 2 * abs(sum) <= max(LEAST_SUM, 3 * span)) return NOISE;
  return most <= span >> 1 && abs(sum) <= 3 * span ? MUCH_NOISE : CHANGE;
}

/** The largest of sixteen bytes. */
// @ts-ignore: decorator
@inline
function largest(bytes: v128): i32 {
  let m = i8x16.max_u(bytes, i8x16.shuffle(bytes, bytes, 8, 9, 10, 11, 12, 13, 14, 15, 0, 1, 2, 3, 4, 5, 6, 7));
  m = i8x16.max_u(m, i8x16.shuffle(m, m, 4, 5, 6, 7, 0, 1, 2, 3, 12, 13, 14, 15, 8, 9, 10, 11));
  m = i8x16.max_u(m, i8x16.shuffle(m, m, 2, 3, 0, 1, 6, 7, 4, 5, 10, 11, 8, 9, 14, 15, 12, 13));
  m = i8x16.max_u(m, i8x16.shuffle(m, m, 1, 0, 3, 2, 5, 4, 7, 6, 9, 8, 11, 10, 13, 12, 15, 14));
  return <i32>i8x16.extract_lane_u(m, 0);
}
