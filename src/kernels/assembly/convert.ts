// @ts-ignore: decorator
@inline
function byte(n: f32): u8 {
  return <u8>(min<f32>(255, max<f32>(0, n)) + 0.5);
}

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
