import { boxSums } from './box-mean';
import type { SmallPicture } from './picture';

/** Cells that colours are summed up in are two to this power pixels wide and high. */
const BITS = 2;
const CELL = 1 << BITS;
/** Colours are taken from so many cells on each side. */
const REACH = 2;

/**
 * Mean colours of marked pixels in the surroundings of each pixel: of squares of five by five cells
 * of four pixels.
 */
export class ColorsAround {
  private readonly across: number;
  private readonly down: number;
  private readonly sums: Float32Array[];
  private readonly scratch: Float32Array;

  constructor(
    private readonly width: number,
    height: number,
  ) {
    this.across = Math.ceil(width / CELL);
    this.down = Math.ceil(height / CELL);
    const plane = () => new Float32Array(this.across * this.down);
    this.sums = [plane(), plane(), plane(), plane()];
    this.scratch = plane();
  }

  /**
   * Sums up a picture's pixels whose mark is `wanted`.
   *
   * @param marks one for each pixel
   */
  sum({ width, height, y, u, v }: SmallPicture, marks: Uint8Array, wanted: number): void {
    const { across, down, sums, scratch } = this;
    const [count, ys, us, vs] = sums as [Float32Array, Float32Array, Float32Array, Float32Array];
    for (const plane of sums) plane.fill(0);
    for (let top = 0; top < height; top++) {
      const row = (top >> BITS) * across;
      for (let x = 0, i = top * width; x < width; x++, i++) {
        if (marks[i] !== wanted) continue;
        const cell = row + (x >> BITS);
        count[cell]!++;
        ys[cell]! += y[i]!;
        us[cell]! += u[i]!;
        vs[cell]! += v[i]!;
      }
    }
    for (const plane of sums) boxSums(plane, across, down, REACH, plane, scratch);
  }

  /**
   * Writes the mean colour around a pixel.
   *
   * @param into luma and both colour differences
   * @returns false where there is none
   */
  at(i: number, into: Float32Array): boolean {
    const { width, across, sums } = this;
    const x = i % width;
    const cell = (((i - x) / width) >> BITS) * across + (x >> BITS);
    const count = sums[0]![cell]!;
    if (count < 0.5) return false;
    for (let k = 0; k < 3; k++) into[k] = sums[k + 1]![cell]! / count;
    return true;
  }
}
