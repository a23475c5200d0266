/*
 * The share of a presenter in pixels along their outline, from the colours on both sides of it.
 */
import { roundByte } from './arithmetic';

/**
 * Cells in which colours are summed up are two to this power samples wide and high, and taken
 * from so many on each side.
 */
const BITS: i32 = 2;
const REACH: i32 = 2;
/** Opacity from here on, in a sample and all around it, is the presenter's own colour. */
const SURE: i32 = 250;
/** Colours that differ by less than so many code values, squared, tell little about a mixture. */
const TELLING: f32 = 14 * 14;

/**
 * Colours that lie beside the way from one to the other by this much, squared, are half as sure
 * to be a mixture.
 */
const BESIDE: f32 = 24 * 24;

/** What is known of a cell, if anything: it is near one that is to be solved, or is one itself. */
const NEAR: u8 = 1;
const MIXED: u8 = 2;

/** Bytes of scratch memory that `solveAlpha` needs. */
export function solveRoom(width: i32, height: i32): i32 {
  const cells = ((width + 6) >> BITS) * ((height + 6) >> BITS);
  return cells * 4 * 4 * 2 + cells;
}

/**
 * Opacity of samples that are neither clear nor opaque, or beside such: where a sample's colour
 * lies on the way from the wall's to the presenter's own around it, by the length of its
 * projection on that way. All planes are `width` by `height` and lie without gaps; luma counts
 * `light` times as much as it would in RGB. What has no opaque sample nearby, and whose colours
 * on both sides are alike, stays. `left` and `top`, 0 to 3, say where in a cell the first sample
 * lies, so that a part of a picture has the cells of the whole. Only cells with such samples,
 * and what they take their colours from, are looked at: most of a picture is clear or opaque.
 */
export function solveAlpha(
  y: usize, u: usize, v: usize, wallY: usize, wallU: usize, wallV: usize, alpha: usize,
  width: i32, height: i32, left: i32, top: i32, light: f32, scratch: usize,
): void {
  const across = (width + left + 3) >> BITS;
  const down = (height + top + 3) >> BITS;
  const plane = <usize>(across * down) << 4;
  const sums = scratch;
  const wide = scratch + plane;
  const marks = wide + plane;
  markCells(alpha, width, height, left, top, marks, across, down);
  memory.fill(sums, 0, plane);
  for (let cy = 0; cy < down; cy++)
    for (let cx = 0; cx < across; cx++) {
      const cell = <usize>(cy * across + cx);
      if (!load<u8>(marks + cell)) continue;
      const x = (cx << BITS) - left;
      const row = (cy << BITS) - top;
      sumCell(y, u, v, alpha, width, height, x, row, sums + (cell << 4));
    }
  // Sums along rows, then down columns; four numbers of a cell at once.
  for (let row = 0; row < down; row++)
    for (let x = 0; x < across; x++) {
      if (!load<u8>(marks + <usize>(row * across + x))) continue;
      let sum = f32x4.splat(0);
      for (let k = max(0, x - REACH); k <= min(across - 1, x + REACH); k++)
        sum = f32x4.add(sum, v128.load(sums + (<usize>(row * across + k) << 4)));
      v128.store(wide + (<usize>(row * across + x) << 4), sum);
    }
  for (let row = 0; row < down; row++)
    for (let x = 0; x < across; x++) {
      if (load<u8>(marks + <usize>(row * across + x)) != MIXED) continue;
      let sum = f32x4.splat(0);
      for (let k = max(0, row - REACH); k <= min(down - 1, row + REACH); k++)
        sum = f32x4.add(sum, v128.load(wide + (<usize>(k * across + x) << 4)));
      solveCell(
        y, u, v, wallY, wallU, wallV, alpha,
        width, height, (x << BITS) - left, (row << BITS) - top, light, sum,
      );
    }
}

/** Marks the cells that have a sample which is neither clear nor opaque, and those near them. */
function markCells(
  alpha: usize, width: i32, height: i32, left: i32, top: i32, marks: usize, across: i32, down: i32,
): void {
  memory.fill(marks, 0, <usize>(across * down));
  for (let row = 0; row < height; row++) {
    const line = alpha + <usize>(row * width);
    const cy = (row + top) >> BITS;
    for (let cx = 0; cx < across; cx++) {
      const from = (cx << BITS) - left;
      let mixed = false;
      if (from >= 0 && from + 4 <= width) {
        const four = load<u32>(line + <usize>from);
        // Most cells are clear or opaque throughout; where an outline is hard, bytes are either.
        if (four != 0 && four != u32.MAX_VALUE)
          mixed =
            isMixed(<u8>four) || isMixed(<u8>(four >> 8)) ||
            isMixed(<u8>(four >> 16)) || isMixed(<u8>(four >> 24));
      } else
        for (let x = max(0, from); x < min(width, from + 4); x++)
          mixed = mixed || isMixed(load<u8>(line + <usize>x));
      if (!mixed || load<u8>(marks + <usize>(cy * across + cx)) == MIXED) continue;
      for (let ny = max(0, cy - REACH); ny <= min(down - 1, cy + REACH); ny++)
        for (let nx = max(0, cx - REACH); nx <= min(across - 1, cx + REACH); nx++) {
          const mark = marks + <usize>(ny * across + nx);
          if (load<u8>(mark) != MIXED) store<u8>(mark, NEAR);
        }
      store<u8>(marks + <usize>(cy * across + cx), MIXED);
    }
  }
}

// @ts-ignore: decorator
@inline
function isMixed(value: u8): bool {
  return value != 0 && value != 255;
}

/** Sums up how many samples of a cell are surely the presenter's own, and their colours. */
function sumCell(
  y: usize, u: usize, v: usize, alpha: usize,
  width: i32, height: i32, left: i32, top: i32, cell: usize,
): void {
  // At the border a sample has no surroundings that could be told.
  for (let row = max(1, top); row < min(height - 1, top + 4); row++)
    for (let x = max(1, left); x < min(width - 1, left + 4); x++) {
      const at = <usize>(row * width + x);
      if (<i32>load<u8>(alpha + at) < SURE || !sureAround(alpha + at, width)) continue;
      store<f32>(cell, load<f32>(cell) + 1);
      store<f32>(cell, load<f32>(cell, 4) + <f32>load<u8>(y + at), 4);
      store<f32>(cell, load<f32>(cell, 8) + <f32>load<u8>(u + at), 8);
      store<f32>(cell, load<f32>(cell, 12) + <f32>load<u8>(v + at), 12);
    }
}

/** Solves the samples of a cell by the sums around it: how many there are, and their colours. */
function solveCell(
  y: usize, u: usize, v: usize, wallY: usize, wallU: usize, wallV: usize, alpha: usize,
  width: i32, height: i32, left: i32, top: i32, light: f32, sum: v128,
): void {
  const count = f32x4.extract_lane(sum, 0);
  if (count < 1) return;
  const by: f32 = 1 / count;
  const meanY = f32x4.extract_lane(sum, 1) * by;
  const meanU = f32x4.extract_lane(sum, 2) * by;
  const meanV = f32x4.extract_lane(sum, 3) * by;
  for (let row = max(0, top); row < min(height, top + 4); row++)
    for (let x = max(0, left); x < min(width, left + 4); x++) {
      const at = <usize>(row * width + x);
      const own = <i32>load<u8>(alpha + at);
      if (own == 0 || own == 255) continue;
      const wy: f32 = <f32>load<u8>(wallY + at);
      const wu: f32 = <f32>load<u8>(wallU + at);
      const wv: f32 = <f32>load<u8>(wallV + at);
      // Colour differences span about half of what luma does for the same difference of colour.
      const fy: f32 = (meanY - wy) * light;
      const fu: f32 = (meanU - wu) * 2;
      const fv: f32 = (meanV - wv) * 2;
      const length = fy * fy + fu * fu + fv * fv;
      const dy: f32 = (<f32>load<u8>(y + at) - wy) * light;
      const du: f32 = (<f32>load<u8>(u + at) - wu) * 2;
      const dv: f32 = (<f32>load<u8>(v + at) - wv) * 2;
      const share = min<f32>(1, max<f32>(0, (dy * fy + du * fu + dv * fv) / max<f32>(1, length)));
      // What lies beside that way is no mixture of the two: an eye, a dark strand on skin.
      const ey = dy - share * fy;
      const eu = du - share * fu;
      const ev = dv - share * fv;
      const off = ey * ey + eu * eu + ev * ev;
      const told = (length / (length + TELLING)) * (BESIDE / (BESIDE + off));
      store<u8>(alpha + at, roundByte(told * share * 255 + (1 - told) * <f32>own));
    }
}

// @ts-ignore: decorator
@inline
function sureAround(at: usize, width: i32): bool {
  const above = at - <usize>width;
  const below = at + <usize>width;
  return (
    <i32>load<u8>(at - 1) >= SURE && <i32>load<u8>(at + 1) >= SURE &&
    <i32>load<u8>(above) >= SURE && <i32>load<u8>(below) >= SURE &&
    <i32>load<u8>(above - 1) >= SURE && <i32>load<u8>(above + 1) >= SURE &&
    <i32>load<u8>(below - 1) >= SURE && <i32>load<u8>(below + 1) >= SURE
  );
}
