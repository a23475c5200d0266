/**
 * Marks the tiles of two planes of one size and stride that differ: `marks` holds one byte for each tile, row by row,
 * and is set to 1 where they do; other bytes stay. Tiles at the right and lower edge may be smaller.
 */
export function markChanges(
  a: usize, b: usize, stride: i32, width: i32, height: i32, tileWidth: i32, tileHeight: i32, marks: usize,
): i32 {
  const across = (width + tileWidth - 1) / tileWidth;
  for (let top = 0; top < height; top += tileHeight) {
    const bottom = min(top + tileHeight, height);
    const row = marks + <usize>((top / tileHeight) * across);
    for (let tile = 0; tile < across; tile++) {
      if (load<u8>(row + <usize>tile)) continue;
      const left = tile * tileWidth;
      const right = min(left + tileWidth, width);
      if (differ(a, stride, b, stride, left, right, top, bottom)) store<u8>(row + <usize>tile, 1);
    }
  }
  let count = 0;
  const tiles = across * ((height + tileHeight - 1) / tileHeight);
  for (let i = 0; i < tiles; i++) count += <i32>load<u8>(marks + <usize>i);
  return count;
}

// @ts-ignore: decorator
@inline
function differ(a: usize, aStride: i32, b: usize, bStride: i32, left: i32, right: i32, top: i32, bottom: i32): bool {
  for (let y = top; y < bottom; y++) {
    const p = a + <usize>(y * aStride);
    const q = b + <usize>(y * bStride);
    let x = <usize>left;
    for (; x + 16 <= <usize>right; x += 16)
      if (v128.any_true(v128.xor(v128.load(p + x), v128.load(q + x)))) return true;
    for (; x < <usize>right; x++) if (load<u8>(p + x) != load<u8>(q + x)) return true;
  }
  return false;
}

/** 1 when rows of `width` samples of two planes are the same, else 0; strides may differ. */
export function sameRows(a: usize, aStride: i32, b: usize, bStride: i32, width: i32, rows: i32): i32 {
  return differ(a, aStride, b, bStride, 0, width, 0, rows) ? 0 : 1;
}

/**
 * Takes rows that were just read into a plane, and marks the tiles (`tileWidth` samples wide, all rows high) in which anything differs
 * from what was there. What is the same is not written again. Rows of both are `width` long.
 */
export function takeRows(source: usize, target: usize, width: i32, rows: i32, tileWidth: i32, marks: usize): void {
  // Row by row, since memory that is read in order comes sooner.
  for (let y = 0; y < rows; y++) {
    const from = source + <usize>(y * width);
    const to = target + <usize>(y * width);
    for (let left = 0, tile: usize = 0; left < width; left += tileWidth, tile++) {
      const right = min(left + tileWidth, width);
      let x = <usize>left;
      let changes = i8x16.splat(0);
      for (; x + 32 <= <usize>right; x += 32) {
        const first = v128.xor(v128.load(from + x), v128.load(to + x));
        changes = v128.or(changes, v128.or(first, v128.xor(v128.load(from + x, 16), v128.load(to + x, 16))));
      }
      let same = !v128.any_true(changes);
      for (; x < <usize>right; x++) same = same && load<u8>(from + x) == load<u8>(to + x);
      if (same) continue;
      store<u8>(marks + tile, 1);
      for (x = <usize>left; x + 16 <= <usize>right; x += 16) v128.store(to + x, v128.load(from + x));
      for (; x < <usize>right; x++) store<u8>(to + x, load<u8>(from + x));
    }
  }
}
