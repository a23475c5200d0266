/**
 * Planar 4:2:0 BT.709 limited range to RGBA, chroma (sited left) interpolated
 * linearly. For stills; video goes to the encoder as it is.
 */
export function yuvToRgba(planes: Uint8Array, width: number, height: number, rgba: Uint8ClampedArray): void {
  const cw = (width + 1) >> 1;
  const ch = (height + 1) >> 1;
  const u = width * height;
  const v = u + cw * ch;
  for (let y = 0; y < height; y++) {
    // Between rows chroma stands half-way: three quarters of the nearer, one of the farther.
    const near = y >> 1;
    const far = Math.min(ch - 1, Math.max(0, near + (y & 1 ? 1 : -1)));
    for (let x = 0; x < width; x++) {
      const left = x >> 1;
      const right = x & 1 ? Math.min(cw - 1, left + 1) : left;
      const chroma = (at: number) =>
        (3 * (planes[at + near * cw + left]! + planes[at + near * cw + right]!) +
          planes[at + far * cw + left]! +
          planes[at + far * cw + right]!) /
          8 -
        128;
      const luma = (planes[y * width + x]! - 16) * (255 / 219);
      const cb = chroma(u) * (255 / 224);
      const cr = chroma(v) * (255 / 224);
      const o = (y * width + x) * 4;
      rgba[o] = luma + 1.5748 * cr;
      rgba[o + 1] = luma - 0.1873 * cb - 0.4681 * cr;
      rgba[o + 2] = luma + 1.8556 * cb;
      rgba[o + 3] = 255;
    }
  }
}
