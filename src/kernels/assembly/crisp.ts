/*
 * A small convolutional network that doubles luma: a residual to Catmull-Rom. Values between the layers are 16-bit, twelve
 * for each sample, one after the other; two of a sample are multiplied at once with the weights of four sums.
 */
import { clampByte } from './arithmetic';

/** Values of a sample between the layers. */
const CHANNELS: i32 = 12;
const SAMPLE: i32 = CHANNELS * 2;
/** Greys are 1/64 of the network's unit, which has 12 fractional bits. */
const GREY_SHIFT: i32 = 6;
const MIDDLE: i32 = 126;

/** Sums of twelve values as 16 bits after PReLU, at `at`. */
// @ts-ignore: decorator
@inline
function storeTwelve(at: usize, a: v128, b: v128, c: v128, shift: i32, slopes: usize): void {
  const first = i16x8.narrow_i32x4_s(i32x4.shr_s(a, shift), i32x4.shr_s(b, shift));
  const second = i16x8.narrow_i32x4_s(i32x4.shr_s(c, shift), i32x4.shr_s(c, shift));
  const none = i16x8.splat(0);
  v128.store(at, i16x8.add(i16x8.max_s(first, none), i16x8.q15mulr_sat_s(i16x8.min_s(first, none), v128.load(slopes))));
  v128.store64_lane(
    at,
    i16x8.add(i16x8.max_s(second, none), i16x8.q15mulr_sat_s(i16x8.min_s(second, none), v128.load(slopes, 16))),
    0,
    16,
  );
}

/**
 * The first layer: squares of 5 of one value each, rows `stride` values apart, to twelve. A row of the square is three pairs, the last
 * with a weight of 0.
 */
function spread(source: usize, stride: i32, width: i32, height: i32, weights: usize, biases: usize, slopes: usize, shift: i32, out: usize): void {
  for (let y = 0; y < height; y++) {
    let from = source + <usize>(y * stride * 2);
    for (let x = 0; x < width; x++) {
      let a = v128.load(biases);
      let b = v128.load(biases, 16);
      let c = v128.load(biases, 32);
      let at = from;
      let weight = weights;
      for (let row = 0; row < 5; row++) {
        const p = v128.load32_splat(at);
        a = i32x4.add(a, i32x4.dot_i16x8_s(p, v128.load(weight)));
        b = i32x4.add(b, i32x4.dot_i16x8_s(p, v128.load(weight, 16)));
        c = i32x4.add(c, i32x4.dot_i16x8_s(p, v128.load(weight, 32)));
        const q = v128.load32_splat(at, 4);
        a = i32x4.add(a, i32x4.dot_i16x8_s(q, v128.load(weight, 48)));
        b = i32x4.add(b, i32x4.dot_i16x8_s(q, v128.load(weight, 64)));
        c = i32x4.add(c, i32x4.dot_i16x8_s(q, v128.load(weight, 80)));
        const r = v128.load32_splat(at, 8);
        a = i32x4.add(a, i32x4.dot_i16x8_s(r, v128.load(weight, 96)));
        b = i32x4.add(b, i32x4.dot_i16x8_s(r, v128.load(weight, 112)));
        c = i32x4.add(c, i32x4.dot_i16x8_s(r, v128.load(weight, 128)));
        at += <usize>(stride * 2);
        weight += 144;
      }
      storeTwelve(out, a, b, c, shift, slopes);
      out += SAMPLE;
      from += 2;
    }
  }
}

/** A layer between: squares of 3 of twelve values, rows `stride` samples apart, to twelve; three samples at a time. */
function carry(source: usize, stride: i32, width: i32, height: i32, weights: usize, biases: usize, slopes: usize, shift: i32, out: usize): void {
  const line = <usize>(stride * SAMPLE);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x += 3) {
      // The last three of a row begin earlier, so that none lies outside.
      const left = min(x, width - 3);
      const from = source + <usize>y * line + <usize>(left * SAMPLE);
      let a0 = v128.load(biases);
      let b0 = v128.load(biases, 16);
      let c0 = v128.load(biases, 32);
      let a1 = a0;
      let b1 = b0;
      let c1 = c0;
      let a2 = a0;
      let b2 = b0;
      let c2 = c0;
      let weight = weights;
      for (let row: usize = 0; row < 3; row++) {
        // Three samples of twelve lie one after the other: eighteen pairs.
        let at = from + row * line;
        for (let pair = 0; pair < 18; pair++) {
          const p = v128.load(weight);
          const q = v128.load(weight, 16);
          const r = v128.load(weight, 32);
          let s = v128.load32_splat(at);
          a0 = i32x4.add(a0, i32x4.dot_i16x8_s(s, p));
          b0 = i32x4.add(b0, i32x4.dot_i16x8_s(s, q));
          c0 = i32x4.add(c0, i32x4.dot_i16x8_s(s, r));
          s = v128.load32_splat(at, 24);
          a1 = i32x4.add(a1, i32x4.dot_i16x8_s(s, p));
          b1 = i32x4.add(b1, i32x4.dot_i16x8_s(s, q));
          c1 = i32x4.add(c1, i32x4.dot_i16x8_s(s, r));
          s = v128.load32_splat(at, 48);
          a2 = i32x4.add(a2, i32x4.dot_i16x8_s(s, p));
          b2 = i32x4.add(b2, i32x4.dot_i16x8_s(s, q));
          c2 = i32x4.add(c2, i32x4.dot_i16x8_s(s, r));
          at += 4;
          weight += 48;
        }
      }
      const to = out + <usize>((y * width + left) * SAMPLE);
      storeTwelve(to, a0, b0, c0, shift, slopes);
      storeTwelve(to + SAMPLE, a1, b1, c1, shift, slopes);
      storeTwelve(to + 2 * SAMPLE, a2, b2, c2, shift, slopes);
    }
  }
}

/** Twice the sums across that Catmull-Rom takes for the places a quarter before and after a sample, of one column. */
// @ts-ignore: decorator
@inline
function cubic(a: i32, b: i32, c: i32, d: i32): i32 {
  return -9 * a + 111 * b + 29 * c - 3 * d;
}

/** The grey that a value of the first layer stands for. */
// @ts-ignore: decorator
@inline
function greyAt(at: usize): i32 {
  return (<i32>load<i16>(at) >> GREY_SHIFT) + MIDDLE;
}

/** The last layer for one sample: what its four differ by from Catmull-Rom. */
// @ts-ignore: decorator
@inline
function residual(from: usize, line: usize, weights: usize, biases: usize, shift: i32): v128 {
  let sum = v128.load(biases);
  let weight = weights;
  for (let row: usize = 0; row < 3; row++) {
    let at = from + row * line;
    for (let pair = 0; pair < 18; pair += 2) {
      sum = i32x4.add(sum, i32x4.dot_i16x8_s(v128.load32_splat(at), v128.load(weight)));
      sum = i32x4.add(sum, i32x4.dot_i16x8_s(v128.load32_splat(at, 4), v128.load(weight, 16)));
      at += 8;
      weight += 32;
    }
  }
  return i32x4.shr_s(sum, shift);
}

/**
 * The last layer: squares of 3 of twelve values to the four samples of each, added to what Catmull-Rom makes of `plain`, values of
 * which the first belongs to the first sample; rows are `plainStride` values apart. Without a source Catmull-Rom is all.
 */
function close(
  source: usize, stride: i32, width: i32, height: i32, weights: usize, biases: usize, shift: i32,
  plain: usize, plainStride: i32, target: usize, targetStride: i32, columns: usize,
): void {
  const line = <usize>(stride * SAMPLE);
  for (let y = 0; y < height; y++) {
    // Sums down for both rows of the target, for all columns and two more on each side.
    const middle = plain + <usize>(y * plainStride * 2);
    const step = <usize>(plainStride * 2);
    for (let x = -2; x < width + 2; x++) {
      const at = middle + (x << 1);
      const above = greyAt(at - step);
      const here = greyAt(at);
      const below = greyAt(at + step);
      store<i32>(columns + ((x + 2) << 3), cubic(below, here, above, greyAt(at - 2 * step)));
      store<i32>(columns + ((x + 2) << 3), cubic(above, here, below, greyAt(at + 2 * step)), 4);
    }
    const upper = target + <usize>(2 * y * targetStride);
    const lower = upper + <usize>targetStride;
    for (let x = 0; x < width; x++) {
      const sum = source ? residual(source + <usize>y * line + <usize>(x * SAMPLE), line, weights, biases, shift) : i32x4.splat(0);
      for (let row = 0; row < 2; row++) {
        const at = columns + (x << 3) + (row << 2);
        const a = load<i32>(at);
        const b = load<i32>(at, 8);
        const c = load<i32>(at, 16);
        const d = load<i32>(at, 24);
        const e = load<i32>(at, 32);
        const to = (row ? lower : upper) + (x << 1);
        const left = row ? i32x4.extract_lane(sum, 2) : i32x4.extract_lane(sum, 0);
        const right = row ? i32x4.extract_lane(sum, 3) : i32x4.extract_lane(sum, 1);
        store<u8>(to, clampByte((cubic(d, c, b, a) + left + 8192) >> 14));
        store<u8>(to, clampByte((cubic(b, c, d, e) + right + 8192) >> 14), 1);
      }
    }
  }
}

/** Side of the blocks that are left out where they and their surroundings have one colour. */
const BLOCK: i32 = 8;
const MARGIN: i32 = 6;

/** Whether values of a rectangle are all the same; rows are `stride` values apart. */
// @ts-ignore: decorator
@inline
function isFlat(at: usize, stride: i32, width: i32, height: i32): bool {
  const value = load<i16>(at);
  const all = i16x8.splat(value);
  for (let y = 0; y < height; y++) {
    const row = at + <usize>(y * stride * 2);
    let x = 0;
    for (; x + 8 <= width; x += 8) if (v128.any_true(v128.xor(v128.load(row + <usize>(x << 1)), all))) return false;
    for (; x < width; x++) if (load<i16>(row + <usize>(x << 1)) != value) return false;
  }
  return true;
}

/** Runs the layers over values with a margin around `width` by `height` of them, and adds what they make to Catmull-Rom. */
// @ts-ignore: decorator
@inline
function rebuild(
  greys: usize, stride: i32, width: i32, height: i32, target: usize, targetStride: i32, model: usize, shifts: usize,
  values: usize, others: usize, columns: usize,
): void {
  const wide = width + 2 * MARGIN;
  const tall = height + 2 * MARGIN;
  spread(greys, stride, wide - 4, tall - 4, model + 80, model, model + 48, load<i32>(shifts), values);
  const second = model + 80 + 5 * 144;
  carry(values, wide - 4, wide - 6, tall - 6, second + 80, second, second + 48, load<i32>(shifts, 4), others);
  const third = second + 80 + 27 * 96;
  carry(others, wide - 6, wide - 8, tall - 8, third + 80, third, third + 48, load<i32>(shifts, 8), values);
  const fourth = third + 80 + 27 * 96;
  carry(values, wide - 8, wide - 10, tall - 10, fourth + 80, fourth, fourth + 48, load<i32>(shifts, 12), others);
  const last = fourth + 80 + 27 * 96;
  close(
    others, wide - 10, width, height, last + 16, last, load<i32>(shifts, 16),
    greys + <usize>((MARGIN * stride + MARGIN) * 2), stride, target, targetStride, columns,
  );
}

/**
 * Doubles a rectangle of a plane of luma. Samples beyond the plane's edges are those at its edges. Blocks of 8 by 8 samples that have
 * one colour with six samples around stay that colour: most of a screen is like that. The rectangle stands on whole blocks, but for
 * where the plane ends. The target is where the four of its first sample are to be.
 *
 * @param model layer by layer biases, slopes (but for the last) and weights, as `packModel` lays them out; 0 for
 *   Catmull-Rom alone
 * @param shifts five of them: by how many bits each layer's sums are brought down
 * @param scratch 50 bytes for each sample of the rectangle and of 6 more on each side, and 8 for each of its columns and of 4 more
 * @returns how many samples went through the layers, which is what it costs
 */
export function crispPlane(
  source: usize, sourceStride: i32, sourceWidth: i32, sourceHeight: i32,
  x: i32, y: i32, width: i32, height: i32,
  target: usize, targetStride: i32, model: usize, shifts: usize, scratch: usize,
): i32 {
  const wide = width + 2 * MARGIN;
  const tall = height + 2 * MARGIN;
  // A value more than there is, for the pair of the first layer that has one only.
  const stride = wide + 2;
  const greys = scratch;
  const values = greys + <usize>((stride * tall * 2 + 15) & ~15);
  // Layers write in turn to these two; the second is never as large as the first.
  const others = values + <usize>((wide - 4) * (tall - 4) * SAMPLE);
  const columns = others + <usize>((wide - 6) * (tall - 6) * SAMPLE);
  for (let row = 0; row < tall; row++) {
    const from = source + <usize>(max(0, min(sourceHeight - 1, y - MARGIN + row)) * sourceStride);
    const to = greys + <usize>(row * stride * 2);
    for (let column = 0; column < wide; column++) {
      const at = max(0, min(sourceWidth - 1, x - MARGIN + column));
      store<i16>(to + (column << 1), <i16>((<i32>load<u8>(from + <usize>at) - MIDDLE) << GREY_SHIFT));
    }
  }
  if (!model) {
    const middle = greys + <usize>((MARGIN * stride + MARGIN) * 2);
    close(0, 0, width, height, 0, 0, 0, middle, stride, target, targetStride, columns);
    return 0;
  }
  // The smallest rectangle that holds every block with something in it.
  let left = width;
  let top = height;
  let right = 0;
  let bottom = 0;
  for (let v = 0; v < height; v += BLOCK)
    for (let u = 0; u < width; u += BLOCK) {
      const at = greys + <usize>((v * stride + u) * 2);
      const w = min(BLOCK, width - u);
      const h = min(BLOCK, height - v);
      if (isFlat(at, stride, w + 2 * MARGIN, h + 2 * MARGIN)) continue;
      left = min(left, u);
      top = min(top, v);
      right = max(right, u + w);
      bottom = max(bottom, v + h);
    }
  if (right)
    rebuild(
      greys + <usize>((top * stride + left) * 2), stride, right - left, bottom - top,
      target + <usize>(2 * top * targetStride + 2 * left), targetStride, model, shifts, values, others, columns,
    );
  for (let v = 0; v < height; v += BLOCK)
    for (let u = 0; u < width; u += BLOCK) {
      const at = greys + <usize>((v * stride + u) * 2);
      const w = min(BLOCK, width - u);
      const h = min(BLOCK, height - v);
      if (!isFlat(at, stride, w + 2 * MARGIN, h + 2 * MARGIN)) continue;
      const grey = <u8>greyAt(at);
      const to = target + <usize>(2 * v * targetStride + 2 * u);
      for (let row = 0; row < 2 * h; row++) memory.fill(to + <usize>(row * targetStride), grey, <usize>(2 * w));
    }
  return right ? (right - left) * (bottom - top) : 0;
}
