/** Tiles of pictures that are looked at are squares of this side. */
const TILE: i32 = 16;

/**
 * Counts, for each tile of 16x16 samples of two planes, those that differ by more than `least`: one
 * byte a tile, row by row, 255 at most. Behind those, one more byte a tile is 1 where it differs at
 * all. Width and height are multiples of 16, planes have their own strides. Returns how many tiles
 * have any samples that differ by more.
 */
export function countChanges(
  a: usize, aStride: i32, b: usize, bStride: i32, width: i32, height: i32, least: i32, counts: usize,
): i32 {
  const floor = i8x16.splat(<i8>least);
  const across = width / TILE;
  const differs = <usize>(across * (height / TILE));
  memory.fill(counts, 0, 2 * differs);
  let busy = 0;
  for (let top = 0; top < height; top += TILE, counts += <usize>across) {
    // Row by row, since memory that is read in order comes sooner; most of it is the same.
    for (let y = top; y < top + TILE; y++) {
      const p = a + <usize>(y * aStride);
      const q = b + <usize>(y * bStride);
      for (let tile: usize = 0; tile < <usize>across; tile++) {
        const x = v128.load(p + (tile << 4));
        const z = v128.load(q + (tile << 4));
        const apart = v128.or(i8x16.sub_sat_u(x, z), i8x16.sub_sat_u(z, x));
        if (!v128.any_true(apart)) continue;
        store<u8>(counts + differs + tile, 1);
        const over = i8x16.sub_sat_u(apart, floor);
        if (!v128.any_true(over)) continue;
        const more = popcnt<i32>(i8x16.bitmask(i8x16.ne(over, i8x16.splat(0))));
        store<u8>(counts + tile, <u8>min(255, <i32>load<u8>(counts + tile) + more));
      }
    }
    for (let tile: usize = 0; tile < <usize>across; tile++) if (load<u8>(counts + tile)) busy++;
  }
  return busy;
}

/**
 * Where a look fits among `columns` by `rows` places of a plane, the first of which begins at
 * `plane`. How badly it fits is the sum, over the look's points, of how far the sample there is
 * from what the point may be, `clip` at most for each. `points` holds two 32-bit numbers each: the
 * address from the look's corner, and the darkest (low byte) and lightest value (second byte) that
 * it may have. `hits` takes two 32-bit numbers for each place whose sum is `limit` at most (below
 * 65535), in order: its number row by row, and the sum; no more than `most` of them. Columns are a
 * multiple of 16. Returns how many there are.
 */
export function matchLook(
  plane: usize, stride: i32, columns: i32, rows: i32, points: usize, count: i32, clip: i32, limit: i32, hits: usize,
  most: i32,
): i32 {
  const bound = i8x16.splat(<i8>clip);
  const passed = i16x8.splat(<i16>limit);
  const end = points + <usize>(count << 3);
  let found = 0;
  for (let y = 0; y < rows; y++) {
    const row = plane + <usize>(y * stride);
    for (let x = 0; x < columns; x += 16) {
      const corner = row + <usize>x;
      let low = i16x8.splat(0);
      let high = i16x8.splat(0);
      let fits = 0;
      for (let point = points; point < end;) {
        // Points come in groups of eight, after which hopeless places are left.
        const stop = min(point + 64, end);
        for (; point < stop; point += 8) {
          const sample = v128.load(corner + load<u32>(point));
          const darkest = v128.load8_splat(point, 4);
          const lightest = v128.load8_splat(point, 5);
          const apart = i8x16.min_u(
            v128.or(i8x16.sub_sat_u(sample, lightest), i8x16.sub_sat_u(darkest, sample)), bound,
          );
          low = i16x8.add_sat_u(low, i16x8.extend_low_i8x16_u(apart));
          high = i16x8.add_sat_u(high, i16x8.extend_high_i8x16_u(apart));
        }
        fits = i16x8.bitmask(i16x8.le_u(low, passed)) | (i16x8.bitmask(i16x8.le_u(high, passed)) << 8);
        if (!fits) break;
      }
      for (; fits && found < most; fits &= fits - 1, found++) {
        const lane = ctz<i32>(fits);
        const half = lane < 8 ? low : high;
        const at = hits + <usize>(found << 3);
        store<i32>(at, y * columns + x + lane);
        store<i32>(at, laneOf(half, lane & 7), 4);
      }
    }
  }
  return found;
}

// @ts-ignore: decorator
@inline
function laneOf(lanes: v128, at: i32): i32 {
  const pair = at < 4 ? i64x2.extract_lane(lanes, 0) : i64x2.extract_lane(lanes, 1);
  return <i32>(pair >> <i64>((at & 3) << 4)) & 0xffff;
}
