import { MARGIN, type Layer } from '@/core/crisp/model';

/** Catmull-Rom for a place a quarter of a sample before the third and after the second, in 128ths. */
const TAPS = [-3, 29, 111, -9];

/**
 * What `crispPlane` means, one sample at a time: a plane of luma at twice its size. Tests hold the
 * kernel against it; it is not for use.
 */
export function crispReference(
  layers: readonly Layer[],
  plane: Uint8Array,
  width: number,
  height: number,
): Uint8Array {
  const grey = (x: number, y: number) =>
    plane[Math.min(height - 1, Math.max(0, y)) * width + Math.min(width - 1, Math.max(0, x))]!;
  let side = { width: width + 2 * MARGIN, height: height + 2 * MARGIN };
  let values = Array.from({ length: side.width * side.height }, (_, i) => [
    (grey((i % side.width) - MARGIN, Math.floor(i / side.width) - MARGIN) - 126) * 64,
  ]);
  for (const layer of layers) {
    const next = { width: side.width - layer.size + 1, height: side.height - layer.size + 1 };
    values = Array.from({ length: next.width * next.height }, (_, i) =>
      convolved(layer, values, side.width, i % next.width, Math.floor(i / next.width)),
    );
    side = next;
  }
  const out = new Uint8Array(width * height * 4);
  for (let y = 0; y < height * 2; y++)
    for (let x = 0; x < width * 2; x++) {
      const residual = values[(y >> 1) * width + (x >> 1)]![(y & 1) * 2 + (x & 1)]!;
      let plain = 0;
      for (let down = 0; down < 4; down++)
        for (let right = 0; right < 4; right++)
          plain +=
            tap(down, y) *
            tap(right, x) *
            grey((x >> 1) + right - (x & 1 ? 1 : 2), (y >> 1) + down - (y & 1 ? 1 : 2));
      const more = isFlat(grey, width, height, x >> 4, y >> 4) ? 0 : residual;
      out[y * width * 2 + x] = Math.min(255, Math.max(0, (plain + more + 8192) >> 14));
    }
  return out;
}

/** Whether a block of 8 by 8 samples has one colour with six samples around. */
function isFlat(
  grey: (x: number, y: number) => number,
  width: number,
  height: number,
  column: number,
  row: number,
): boolean {
  const [left, top] = [column * 8, row * 8];
  for (let y = top - MARGIN; y < Math.min(top + 8, height) + MARGIN; y++)
    for (let x = left - MARGIN; x < Math.min(left + 8, width) + MARGIN; x++)
      if (grey(x, y) !== grey(left, top)) return false;
  return true;
}

const tap = (k: number, place: number) => TAPS[place & 1 ? 3 - k : k]!;

function convolved(
  { size, inputs, outputs, shift, biases, slopes, weights }: Layer,
  values: readonly (readonly number[])[],
  stride: number,
  left: number,
  top: number,
): number[] {
  return Array.from({ length: outputs }, (_, output) => {
    let sum = biases[output]!;
    for (let y = 0; y < size; y++)
      for (let x = 0; x < size; x++)
        for (let input = 0; input < inputs; input++)
          sum +=
            values[(top + y) * stride + left + x]![input]! *
            weights[((output * size + y) * size + x) * inputs + input]!;
    if (Math.abs(sum) >= 2 ** 31) throw new RangeError('A sum does not fit.');
    sum >>= shift;
    if (!slopes) return sum;
    sum = Math.min(32767, Math.max(-32768, sum));
    return sum >= 0 ? sum : (sum * slopes[output]! + 16384) >> 15;
  });
}
