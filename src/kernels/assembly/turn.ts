/*
 * Eight rows of a plane as columns of eight and back, so that what goes along rows can be done for eight of them at once.
 */

/** Rows that are turned together. */
export const BAND: i32 = 8;

// @ts-ignore: decorator
@inline
export function words(a: v128, b: v128, high: bool): v128 {
  return high
    ? v128.shuffle<u16>(a, b, 4, 12, 5, 13, 6, 14, 7, 15)
    : v128.shuffle<u16>(a, b, 0, 8, 1, 9, 2, 10, 3, 11);
}

// @ts-ignore: decorator
@inline
function pairs(a: v128, b: v128, high: bool): v128 {
  return high ? v128.shuffle<u32>(a, b, 2, 6, 3, 7) : v128.shuffle<u32>(a, b, 0, 4, 1, 5);
}

// @ts-ignore: decorator
@inline
function quads(a: v128, b: v128, high: bool): v128 {
  return high ? v128.shuffle<u64>(a, b, 1, 3) : v128.shuffle<u64>(a, b, 0, 2);
}

/** Turns eight rows of 16-bit values, `stride` bytes apart, into columns of eight: `count` of them, rounded up to eight. */
// @ts-ignore: decorator
@inline
export function transpose(lines: usize, stride: usize, count: i32, columns: usize): void {
  for (let x = 0; x < count; x += 8) {
    const at = lines + <usize>(x << 1);
    const r0 = v128.load(at);
    const r1 = v128.load(at + stride);
    const r2 = v128.load(at + 2 * stride);
    const r3 = v128.load(at + 3 * stride);
    const r4 = v128.load(at + 4 * stride);
    const r5 = v128.load(at + 5 * stride);
    const r6 = v128.load(at + 6 * stride);
    const r7 = v128.load(at + 7 * stride);
    const a0 = words(r0, r1, false);
    const a1 = words(r0, r1, true);
    const a2 = words(r2, r3, false);
    const a3 = words(r2, r3, true);
    const a4 = words(r4, r5, false);
    const a5 = words(r4, r5, true);
    const a6 = words(r6, r7, false);
    const a7 = words(r6, r7, true);
    const b0 = pairs(a0, a2, false);
    const b1 = pairs(a0, a2, true);
    const b2 = pairs(a4, a6, false);
    const b3 = pairs(a4, a6, true);
    const b4 = pairs(a1, a3, false);
    const b5 = pairs(a1, a3, true);
    const b6 = pairs(a5, a7, false);
    const b7 = pairs(a5, a7, true);
    const to = columns + <usize>(x << 4);
    v128.store(to, quads(b0, b2, false));
    v128.store(to, quads(b0, b2, true), 16);
    v128.store(to, quads(b1, b3, false), 32);
    v128.store(to, quads(b1, b3, true), 48);
    v128.store(to, quads(b4, b6, false), 64);
    v128.store(to, quads(b4, b6, true), 80);
    v128.store(to, quads(b5, b7, false), 96);
    v128.store(to, quads(b5, b7, true), 112);
  }
}

/** Bytes of two columns, row by row beside each other. */
// @ts-ignore: decorator
@inline
function besides(a: v128, b: v128): v128 {
  const bytes = i8x16.narrow_i16x8_u(a, b);
  return v128.shuffle<u8>(bytes, bytes, 0, 8, 1, 9, 2, 10, 3, 11, 4, 12, 5, 13, 6, 14, 7, 15);
}

/** Stores eight columns of eight 16-bit values as rows of eight bytes, `stride` apart; `rows` of them. */
// @ts-ignore: decorator
@inline
export function storeColumns(
  c0: v128, c1: v128, c2: v128, c3: v128, c4: v128, c5: v128, c6: v128, c7: v128, out: usize, stride: usize, rows: i32,
): void {
  const m0 = besides(c0, c1);
  const m1 = besides(c2, c3);
  const m2 = besides(c4, c5);
  const m3 = besides(c6, c7);
  const n0 = words(m0, m1, false);
  const n1 = words(m0, m1, true);
  const n2 = words(m2, m3, false);
  const n3 = words(m2, m3, true);
  const r01 = pairs(n0, n2, false);
  const r23 = pairs(n0, n2, true);
  const r45 = pairs(n1, n3, false);
  const r67 = pairs(n1, n3, true);
  v128.store64_lane(out, r01, 0);
  if (rows > 1) v128.store64_lane(out + stride, r01, 1);
  if (rows > 2) v128.store64_lane(out + 2 * stride, r23, 0);
  if (rows > 3) v128.store64_lane(out + 3 * stride, r23, 1);
  if (rows > 4) v128.store64_lane(out + 4 * stride, r45, 0);
  if (rows > 5) v128.store64_lane(out + 5 * stride, r45, 1);
  if (rows > 6) v128.store64_lane(out + 6 * stride, r67, 0);
  if (rows > 7) v128.store64_lane(out + 7 * stride, r67, 1);
}
