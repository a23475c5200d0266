import { roundByte as byte } from './arithmetic';

// Luma of BT.709 in limited range, Q15.
const RED: i32 = 5983;
const GREEN: i32 = 20127;
const BLUE: i32 = 2032;
const LUMA_ROUND: i32 = (16 << 15) + (1 << 14);

/**
 * RGBA (not premultiplied) to planar YUV 4:2:0 with opacity at both resolutions,
 * BT.709 limited range, chroma sited left. Width and height are even.
 * Chroma is the opacity-weighted mean, so that clear pixels lend no colour; where all are clear it is grey.
 */
export function rgbaToPlanar(rgba: usize, width: i32, height: i32, y: usize, u: usize, v: usize, a: usize, chromaA: usize): void {
  lumaAndOpacity(rgba, width * height, y, a);
  const half = width >> 1;
  for (let row = 0; row < height >> 1; row++) {
    const upper = rgba + (<usize>(row * 2 * width) << 2);
    const lower = upper + (<usize>width << 2);
    const opacities = a + <usize>(row * 2 * width);
    for (let column = 0; column < half; ) {
      const out = <usize>(row * half + column);
      // Overlays are clear for the most part: four samples stand on eight columns and the one before.
      if (column > 0 && column + 8 <= half && clearAround(opacities + <usize>(column * 2 - 1), <usize>width)) {
        store<u32>(u + out, 0x80808080);
        store<u32>(v + out, 0x80808080);
        store<u32>(chromaA + out, 0);
        column += 4;
        continue;
      }
      // Left siting: the sample stands on the left column; 1 2 1 across, both rows.
      const before = <usize>(max(0, column * 2 - 1)) << 2;
      const on = <usize>(column * 2) << 2;
      let sum = f32x4.add(weighed(upper + before), weighed(lower + before));
      sum = f32x4.add(sum, f32x4.add(weighed(upper + on + 4), weighed(lower + on + 4)));
      const middle = f32x4.add(weighed(upper + on), weighed(lower + on));
      sum = f32x4.add(sum, f32x4.add(middle, middle));
      const cover = f32x4.extract_lane(sum, 3);
      store<u8>(chromaA + out, byte(cover / 8));
      const share: f32 = cover > 0 ? 1 / cover : 0;
      const r = f32x4.extract_lane(sum, 0) * share;
      const g = f32x4.extract_lane(sum, 1) * share;
      const b = f32x4.extract_lane(sum, 2) * share;
      const luma = r * 0.2126 + g * 0.7152 + b * 0.0722;
      store<u8>(u + out, byte(128 + ((b - luma) / 1.8556) * (224.0 / 255.0)));
      store<u8>(v + out, byte(128 + ((r - luma) / 1.5748) * (224.0 / 255.0)));
      column++;
    }
  }
}

// @ts-ignore: decorator
@inline
function lumaAndOpacity(rgba: usize, count: i32, y: usize, a: usize): void {
  const weights = i16x8(<i16>RED, <i16>GREEN, <i16>BLUE, 0, <i16>RED, <i16>GREEN, <i16>BLUE, 0);
  const round = i32x4.splat(LUMA_ROUND);
  let i = 0;
  for (; i + 4 <= count; i += 4) {
    const pixels = v128.load(rgba + (<usize>i << 2));
    const s0 = i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(pixels), weights);
    const s1 = i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(pixels), weights);
    const sums = i32x4.add(v128.shuffle<i32>(s0, s1, 0, 2, 4, 6), v128.shuffle<i32>(s0, s1, 1, 3, 5, 7));
    const words = i32x4.shr_s(i32x4.add(sums, round), 15);
    const bytes = i16x8.narrow_i32x4_s(words, i32x4.shr_u(pixels, 24));
    const packed = i8x16.narrow_i16x8_u(bytes, bytes);
    v128.store32_lane(y + <usize>i, packed, 0);
    v128.store32_lane(a + <usize>i, packed, 1);
  }
  for (; i < count; i++) {
    const at = rgba + (<usize>i << 2);
    const sum = <i32>load<u8>(at) * RED + <i32>load<u8>(at, 1) * GREEN + <i32>load<u8>(at, 2) * BLUE;
    store<u8>(y + <usize>i, <u8>((sum + LUMA_ROUND) >> 15));
    store<u8>(a + <usize>i, load<u8>(at, 3));
  }
}

/** Whether sixteen opacities in each of two rows are 0. */
// @ts-ignore: decorator
@inline
function clearAround(at: usize, stride: usize): bool {
  return !v128.any_true(v128.or(v128.load(at), v128.load(at + stride)));
}

/** Red, green and blue of a pixel times its opacity, and the opacity. */
// @ts-ignore: decorator
@inline
function weighed(at: usize): v128 {
  const bytes = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(at)));
  const values = f32x4.convert_i32x4_u(bytes);
  const alpha = f32x4.splat(<f32>load<u8>(at, 3));
  return f32x4.mul(f32x4.replace_lane(values, 3, 1), alpha);
}

/**
 * Planar YUV 4:2:0, BT.709 limited range and chroma sited left, to opaque RGBA for display: chroma is brought up linearly.
 */
export function planarToRgba(y: usize, u: usize, v: usize, width: i32, height: i32, rgba: usize): void {
  const half = (width + 1) >> 1;
  const halfHeight = (height + 1) >> 1;
  for (let row = 0; row < height; row++) {
    const near = <usize>((row >> 1) * half);
    const far = <usize>(max(0, min(halfHeight - 1, (row >> 1) + (row & 1 ? 1 : -1))) * half);
    for (let x = 0; x < width; x++) {
      const left = <usize>(x >> 1);
      const right = <usize>(x & 1 ? min(half - 1, (x >> 1) + 1) : x >> 1);
      const luma = (<f32>load<u8>(y + <usize>(row * width + x)) - 16) * <f32>(255.0 / 219.0);
      const cb = chroma(u, near, far, left, right) * <f32>(255.0 / 224.0);
      const cr = chroma(v, near, far, left, right) * <f32>(255.0 / 224.0);
      const out = rgba + (<usize>(row * width + x) << 2);
      store<u8>(out, byte(luma + 1.5748 * cr));
      store<u8>(out, byte(luma - 0.187324 * cb - 0.468124 * cr), 1);
      store<u8>(out, byte(luma + 1.8556 * cb), 2);
      store<u8>(out, 255, 3);
    }
  }
}

/** Three quarters of the nearer row and one of the farther, between two columns. */
// @ts-ignore: decorator
@inline
function chroma(plane: usize, near: usize, far: usize, left: usize, right: usize): f32 {
  const sum =
    3 * (<i32>load<u8>(plane + near + left) + <i32>load<u8>(plane + near + right)) +
    <i32>load<u8>(plane + far + left) + <i32>load<u8>(plane + far + right);
  return <f32>sum / 8 - 128;
}
