import { roundByte as byte } from './arithmetic';

/**
 * RGBA (not premultiplied) to planar YUV 4:2:0 with opacity at both resolutions,
 * BT.709 limited range, chroma sited left. Width and height are even.
 * Chroma is the opacity-weighted mean, so that clear pixels lend no colour.
 */
export function rgbaToPlanar(rgba: usize, width: i32, height: i32, y: usize, u: usize, v: usize, a: usize, chromaA: usize): void {
  for (let i = 0; i < width * height; i++) {
    const at = rgba + <usize>(i << 2);
    const r = <f32>load<u8>(at);
    const g = <f32>load<u8>(at, 1);
    const b = <f32>load<u8>(at, 2);
    store<u8>(y + <usize>i, byte(16 + (r * 0.2126 + g * 0.7152 + b * 0.0722) * (219.0 / 255.0)));
    store<u8>(a + <usize>i, load<u8>(at, 3));
  }
  const half = width >> 1;
  for (let row = 0; row < height >> 1; row++) {
    for (let column = 0; column < half; column++) {
      let r: f32 = 0;
      let g: f32 = 0;
      let b: f32 = 0;
      let cover: f32 = 0;
      let weights: f32 = 0;
      // Left siting: the sample stands on the left column; 1 2 1 across, both rows.
      for (let dy = 0; dy < 2; dy++)
        for (let dx = -1; dx < 2; dx++) {
          const x = max(0, column * 2 + dx);
          const at = rgba + <usize>(((row * 2 + dy) * width + x) << 2);
          const weight: f32 = dx == 0 ? 2 : 1;
          const opacity = <f32>load<u8>(at, 3) * weight;
          r += <f32>load<u8>(at) * opacity;
          g += <f32>load<u8>(at, 1) * opacity;
          b += <f32>load<u8>(at, 2) * opacity;
          cover += opacity;
          weights += weight;
        }
      const out = <usize>(row * half + column);
      store<u8>(chromaA + out, byte(cover / weights));
      if (cover > 0) {
        r /= cover;
        g /= cover;
        b /= cover;
      }
      const luma = r * 0.2126 + g * 0.7152 + b * 0.0722;
      store<u8>(u + out, byte(128 + ((b - luma) / 1.8556) * (224.0 / 255.0)));
      store<u8>(v + out, byte(128 + ((r - luma) / 1.5748) * (224.0 / 255.0)));
    }
  }
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
