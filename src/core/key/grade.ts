import { boxSums } from '../matte/box-mean';
import { enclosed, partsOf } from '../matte/regions';

/** How good a key is, in one picture of its recording. */
export interface MatteGrade {
  /** Share of what should be clear that is not. */
  readonly noise: number;
  /** Share of what should be opaque that is not. */
  readonly holes: number;
  /** Width of the outline, in pixels of the recording. */
  readonly edge: number;
  /** How much more of the wall's hue the outline has than the rest, in code values of chroma. */
  readonly spill: number;
}

/** Opacity up to this is clear, and from 255 less this it is opaque. */
const SLACK = 12;
/** The outline lies within this distance of where opacity is a half, in pixels. */
const BAND = 6;
/** A part of less than this share of the largest is noise, no presenter. */
const LEAST_PART = 0.05;

/** Fewer pixels are no hole. */
const LEAST_HOLE = 24;

/** What is graded: opacity, and the keyed picture over grey at half the size. */
export interface KeyedPicture {
  readonly width: number;
  readonly height: number;
  /** 0 to 255. */
  readonly alpha: Uint8Array;
  /** Colour differences, at half of the width and height. */
  readonly u: Uint8Array;
  readonly v: Uint8Array;
  /** Pixels of the recording for one of the picture. */
  readonly scale: number;
}

/**
 * Grades a key by what it leaves: specks where nothing should be, holes in the presenter, the width
 * of their outline, and the wall's light on it. Null where nobody is left.
 *
 * @param wall direction of the wall's colour from grey, of length 1; null without a wall
 */
export function gradeMatte(
  { width, height, alpha, u, v, scale }: KeyedPicture,
  wall: { readonly u: number; readonly v: number } | null,
): MatteGrade | null {
  const count = width * height;
  const marked = new Uint8Array(count);
  for (let i = 0; i < count; i++) marked[i] = alpha[i]! > 127 ? 1 : 0;
  const { labels, sizes } = partsOf(marked, width, height);
  const largest = Math.max(...sizes);
  if (largest < count * 0.002) return null;
  const person = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    marked[i] = marked[i] && sizes[labels[i]!]! >= largest * LEAST_PART ? 1 : 0;
    person[i] = marked[i]!;
  }
  // What they enclose is to be opaque too, but for gaps between hairs.
  const holes = enclosed(marked, width, height);
  const gaps = partsOf(holes, width, height);
  for (let i = 0; i < count; i++)
    if (holes[i] && gaps.sizes[gaps.labels[i]!]! < LEAST_HOLE) holes[i] = 0;
    else if (holes[i]) person[i] = 1;
  const sums = new Float32Array(count);
  boxSums(person, width, height, BAND, sums, new Float32Array(count));
  const room = (2 * BAND + 1) ** 2;
  const found = { outer: 0, specks: 0, inner: 0, gaps: 0, soft: 0, around: 0 };
  const light = { edge: 0, edges: 0, rest: 0, rests: 0 };
  for (let i = 0; i < count; i++) {
    const a = alpha[i]!;
    const x = i % width;
    const y = (i - x) / width;
    if (sums[i]! < 0.5) {
      found.outer++;
      if (a > SLACK) found.specks++;
      continue;
    }
    const inner = sums[i]! > room - 0.5 || holes[i];
    if (inner) {
      found.inner++;
      if (a < 255 - SLACK) found.gaps++;
    } else {
      if (a > SLACK && a < 255 - SLACK) found.soft++;
      if (person[i] && (bare(person, i - 1, x > 0) || bare(person, i + 1, x < width - 1)))
        found.around++;
      else if (
        person[i] &&
        (bare(person, i - width, y > 0) || bare(person, i + width, y < height - 1))
      )
        found.around++;
    }
    if (!wall || a < 64) continue;
    const at = (y >> 1) * ((width + 1) >> 1) + (x >> 1);
    const along = (u[at]! - 128) * wall.u + (v[at]! - 128) * wall.v;
    if (inner) {
      light.rest += along;
      light.rests++;
    } else {
      light.edge += (along * 255) / a;
      light.edges++;
    }
  }
  const mean = (sum: number, of: number) => (of ? sum / of : 0);
  return {
    noise: mean(found.specks, found.outer),
    holes: mean(found.gaps, found.inner),
    edge: mean(found.soft, found.around) * scale,
    spill: wall ? Math.max(0, mean(light.edge, light.edges) - mean(light.rest, light.rests)) : 0,
  };
}

/** Whether a pixel is there and not of the presenter. */
const bare = (person: Float32Array, i: number, there: boolean): boolean => there && !person[i];
