/**
 * Takes a plane over into a copy of it, tile by tile, but for what codecs change between two pictures of the same: a tile that
 * differs from its copy nowhere by more than `most`, and on the mean by no more than a `mean`-th of 256, stays as it was copied.
 * `states` holds a byte for each tile, row by row: 0 for one that was never copied (which is copied and set to 1), and is set to 2 for
 * one that was copied anew. Tiles are those of the copy; `left` and `top` say where the plane lies in it, and what of a tile the plane
 * does not cover stays. Only tiles from `firstColumn` and `firstRow` to before `endColumn` and `endRow` are looked at.
 */
export function steadyPlane(
  source: usize, sourceStride: i32, width: i32, height: i32, left: i32, top: i32,
  copy: usize, copyStride: i32, tileWidth: i32, tileHeight: i32, across: i32,
  firstColumn: i32, firstRow: i32, endColumn: i32, endRow: i32, most: i32, mean: i32, states: usize,
): void {
  for (let row = firstRow; row < endRow; row++) {
    const y0 = max(row * tileHeight, top);
    const y1 = min((row + 1) * tileHeight, top + height);
    for (let column = firstColumn; column < endColumn; column++) {
      const x0 = max(column * tileWidth, left);
      const x1 = min((column + 1) * tileWidth, left + width);
      if (x1 <= x0 || y1 <= y0) continue;
      const from = source + <usize>((y0 - top) * sourceStride + x0 - left);
      const to = copy + <usize>(y0 * copyStride + x0);
      const state = states + <usize>(row * across + column);
      if (load<u8>(state) && isNoise(from, sourceStride, to, copyStride, x1 - x0, y1 - y0, most, mean)) continue;
      for (let y = 0; y < y1 - y0; y++)
        memory.copy(to + <usize>(y * copyStride), from + <usize>(y * sourceStride), <usize>(x1 - x0));
      store<u8>(state, load<u8>(state) ? 2 : 1);
    }
  }
}

/** Whether two rectangles differ by no more than noise. */
// @ts-ignore: decorator
@inline
function isNoise(a: usize, aStride: i32, b: usize, bStride: i32, width: i32, height: i32, most: i32, mean: i32): bool {
  let sum = 0;
  const limits = i8x16.splat(<i8>most);
  for (let y = 0; y < height; y++) {
    const p = a + <usize>(y * aStride);
    const q = b + <usize>(y * bStride);
    let sums = i32x4.splat(0);
    let x: usize = 0;
    for (; x + 16 <= <usize>width; x += 16) {
      const s = v128.load(p + x);
      const t = v128.load(q + x);
      const apart = v128.or(i8x16.sub_sat_u(s, t), i8x16.sub_sat_u(t, s));
      if (v128.any_true(i8x16.gt_u(apart, limits))) return false;
      sums = i32x4.add(sums, i32x4.extadd_pairwise_i16x8_u(i16x8.extadd_pairwise_i8x16_u(apart)));
    }
    sum += i32x4.extract_lane(sums, 0) + i32x4.extract_lane(sums, 1) + i32x4.extract_lane(sums, 2) + i32x4.extract_lane(sums, 3);
    for (; x < <usize>width; x++) {
      const apart = abs(<i32>load<u8>(p + x) - <i32>load<u8>(q + x));
      if (apart > most) return false;
      sum += apart;
    }
  }
  return (sum << 8) <= mean * width * height;
}
