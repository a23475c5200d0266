/**
 * Structural similarity of two planes: the mean over blocks of 8 by 8 samples (Z. Wang and others,
 * "Image Quality Assessment", 2004).
 */
export function ssim(a: Uint8Array, b: Uint8Array, width: number, height: number): number {
  const [c1, c2] = [(0.01 * 255) ** 2, (0.03 * 255) ** 2];
  let sum = 0;
  let count = 0;
  for (let y = 0; y + 8 <= height; y += 8)
    for (let x = 0; x + 8 <= width; x += 8) {
      let [ma, mb, aa, bb, ab] = [0, 0, 0, 0, 0];
      for (let v = 0; v < 8; v++)
        for (let u = 0; u < 8; u++) {
          const at = (y + v) * width + x + u;
          const [p, q] = [a[at]!, b[at]!];
          ma += p;
          mb += q;
          aa += p * p;
          bb += q * q;
          ab += p * q;
        }
      ma /= 64;
      mb /= 64;
      const [va, vb, cov] = [aa / 64 - ma * ma, bb / 64 - mb * mb, ab / 64 - ma * mb];
      sum += ((2 * ma * mb + c1) * (2 * cov + c2)) / ((ma * ma + mb * mb + c1) * (va + vb + c2));
      count++;
    }
  return sum / count;
}

/** How steep the edges of a plane are: the mean difference of neighbours in both directions. */
export function acuity(plane: Uint8Array, width: number, height: number): number {
  let sum = 0;
  for (let y = 0; y + 1 < height; y++)
    for (let x = 0; x + 1 < width; x++) {
      const at = y * width + x;
      sum += Math.abs(plane[at + 1]! - plane[at]!) + Math.abs(plane[at + width]! - plane[at]!);
    }
  return sum / (width * height);
}
