/**
 * Sums of a plane over squares around each sample, by running sums along rows and then columns.
 * Beyond the edges there is nothing.
 *
 * @param radius samples on each side of the middle one
 * @param scratch as long as the plane
 */
export function boxSums(
  from: Float32Array,
  width: number,
  height: number,
  radius: number,
  into: Float32Array,
  scratch: Float32Array,
): void {
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let sum = 0;
    for (let x = 0; x < Math.min(radius, width); x++) sum += from[row + x]!;
    for (let x = 0; x < width; x++) {
      if (x + radius < width) sum += from[row + x + radius]!;
      scratch[row + x] = sum;
      if (x >= radius) sum -= from[row + x - radius]!;
    }
  }
  const sums = new Float64Array(width);
  for (let y = 0; y < Math.min(radius, height); y++)
    for (let x = 0; x < width; x++) sums[x]! += scratch[y * width + x]!;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const next = row + radius * width;
    const last = row - radius * width;
    for (let x = 0; x < width; x++) {
      if (y + radius < height) sums[x]! += scratch[next + x]!;
      into[row + x] = sums[x]!;
      if (y >= radius) sums[x]! -= scratch[last + x]!;
    }
  }
}
