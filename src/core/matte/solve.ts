import { ColorsAround } from './around';
import { boxSums } from './box-mean';
import type { SmallPicture } from './picture';
import type { Plate } from './plate';

/** Pixels within this distance of the outline may be mixed. */
const BAND = 3;
/** Colours that differ by less than so many code values tell little about a mixture. */
const TELLING = 14;

/** What a pixel is taken for. */
const MIXED = 0;
const PERSON = 1;
const BEHIND = 2;
const UNSURE = 3;

/** Finds the share of a person in the pixels along their outline. */
export class EdgeSolver {
  private readonly sums: Float32Array;
  private readonly scratch: Float32Array;
  private readonly marks: Uint8Array;
  private readonly persons: ColorsAround;
  private readonly others: ColorsAround;

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    this.sums = new Float32Array(width * height);
    this.scratch = new Float32Array(width * height);
    this.marks = new Uint8Array(width * height);
    this.persons = new ColorsAround(width, height);
    this.others = new ColorsAround(width, height);
  }

  /**
   * Opacity of each pixel, 0 to 1. Away from the outline it is what was found; near it the pixel is
   * a mixture of the person's colour and the one behind, and where it lies between the two tells
   * its share. The person's colour is that of surely opaque pixels around, the other is the plate's
   * or that of surely clear pixels around.
   *
   * @param sure how surely each pixel is of a person, 0 to 1
   * @param light factor of the plate's luma above black
   */
  solve(
    picture: SmallPicture,
    plate: Plate | null,
    sure: Float32Array,
    light: number,
    into: Float32Array,
  ): void {
    const { marks, persons, others } = this;
    this.mark(sure, into);
    persons.sum(picture, marks, PERSON);
    others.sum(picture, marks, BEHIND);
    const { y, u, v } = picture;
    const front = new Float32Array(3);
    const back = new Float32Array(3);
    for (let i = 0; i < marks.length; i++) {
      const p = sure[i]!;
      into[i] = p > 0.5 ? 1 : 0;
      if (marks[i] !== MIXED) continue;
      into[i] = p;
      if (!persons.at(i, front)) continue;
      if (plate && plate.known[i]! >= 0.5) {
        back[0] = 16 + (plate.y[i]! - 16) * light;
        back[1] = plate.u[i]!;
        back[2] = plate.v[i]!;
      } else if (!others.at(i, back)) continue;
      // Colour differences span about half of what luma does for the same difference of colour.
      const fy = front[0]! - back[0]!;
      const fu = 2 * (front[1]! - back[1]!);
      const fv = 2 * (front[2]! - back[2]!);
      const length = fy * fy + fu * fu + fv * fv;
      const along =
        (y[i]! - back[0]!) * fy + 2 * (u[i]! - back[1]!) * fu + 2 * (v[i]! - back[2]!) * fv;
      const share = Math.min(1, Math.max(0, along / Math.max(1, length)));
      const told = length / (length + TELLING * TELLING);
      into[i] = told * share + (1 - told) * p;
    }
  }

  /** Marks what each pixel is taken for: near the outline it may be mixed. */
  private mark(sure: Float32Array, scratch: Float32Array): void {
    const { width, height, sums, marks } = this;
    for (let i = 0; i < sure.length; i++) scratch[i] = sure[i]! > 0.5 ? 1 : 0;
    boxSums(scratch, width, height, BAND, sums, this.scratch);
    for (let y = 0, i = 0; y < height; y++) {
      const tall = Math.min(BAND, y) + Math.min(BAND, height - 1 - y) + 1;
      for (let x = 0; x < width; x++, i++) {
        const p = sure[i]!;
        marks[i] = p > 0.9 ? PERSON : p < 0.1 ? BEHIND : UNSURE;
        if (sums[i]! < 0.5) continue;
        const room = tall * (Math.min(BAND, x) + Math.min(BAND, width - 1 - x) + 1);
        if (sums[i]! < room - 0.5) marks[i] = MIXED;
      }
    }
  }
}
