import { PLANES, type SmallPicture } from './picture';

/**
 * What lies behind a person who is filmed by a camera that stands still: the picture without them,
 * as far as it was ever seen, and how much each of its pixels varies by itself.
 */
export interface Plate extends SmallPicture {
  /** How far each pixel can be relied on, 0 to 1; 0 where it was never seen. */
  readonly known: Float32Array;
  /** One by the typical difference of luma and of each colour difference, in code values. */
  readonly precision: Readonly<Record<'y' | 'u' | 'v', Float32Array>>;
}

/** Fewer sights of a pixel than this tell little. */
const ENOUGH = 4;
/** Colours are noisy by at least so much. */
const LEAST_SPREAD = { y: 2.5, u: 1.5, v: 1.5 };
/** A background that moves by more than so many code values of luma is not relied on. */
const UNRELIABLE = 24;

/**
 * What a person hides in turn, put together of pictures in which they are elsewhere: the median of
 * each pixel over those in which it is background.
 *
 * @param behind for each picture which of its pixels are surely background, 1 for those
 */
export function learnPlate(
  pictures: readonly SmallPicture[],
  behind: readonly Uint8Array[],
): Plate {
  const { width, height } = pictures[0]!;
  const count = width * height;
  const known = new Float32Array(count);
  const planes = { y: new Uint8Array(count), u: new Uint8Array(count), v: new Uint8Array(count) };
  const precision = {
    y: new Float32Array(count),
    u: new Float32Array(count),
    v: new Float32Array(count),
  };
  const seen = new Uint8Array(pictures.length);
  for (let i = 0; i < count; i++) {
    const shown = pictures.filter((_, k) => behind[k]![i]);
    if (!shown.length) continue;
    const values = seen.subarray(0, shown.length);
    let unrest = 0;
    for (const name of PLANES) {
      shown.forEach((picture, k) => (values[k] = picture[name][i]!));
      const middle = values.sort()[shown.length >> 1]!;
      planes[name][i] = middle;
      for (let k = 0; k < values.length; k++) values[k] = Math.abs(values[k]! - middle);
      // The median of the differences is two thirds of the standard deviation of noise.
      const spread = Math.max(LEAST_SPREAD[name], 1.48 * values.sort()[shown.length >> 1]!);
      precision[name][i] = 1 / spread;
      if (name === 'y') unrest = spread;
    }
    const steady = Math.max(0, 1 - unrest / UNRELIABLE);
    known[i] = Math.min(1, shown.length / ENOUGH) * steady;
  }
  return { width, height, ...planes, known, precision };
}

/**
 * A plate for another light: an even change of all of its luma, as when a cloud comes or a camera
 * sets its own exposure, told by the pixels that are surely background.
 *
 * @param behind 1 where the picture surely shows background
 * @returns the factor by which luma above black has changed, 0.5 to 2; 1 where too little is seen
 */
export function lightOf(plate: Plate, picture: SmallPicture, behind: Uint8Array): number {
  const histogram = new Uint32Array(RATIOS);
  let count = 0;
  // One pixel of several tells enough.
  for (let i = 0; i < behind.length; i += 3) {
    const was = plate.y[i]! - BLACK;
    if (!behind[i] || plate.known[i]! < 0.5 || was < 24) continue;
    const ratio = (picture.y[i]! - BLACK) / was;
    if (ratio <= 0.5 || ratio >= 2) continue;
    histogram[Math.floor(((ratio - 0.5) / 1.5) * RATIOS)]!++;
    count++;
  }
  if (count < LEAST_SEEN) return 1;
  let below = 0;
  let bin = 0;
  while (below + histogram[bin]! < count / 2) below += histogram[bin++]!;
  const within = (count / 2 - below) / histogram[bin]!;
  return 0.5 + ((bin + within) / RATIOS) * 1.5;
}

const BLACK = 16;
const RATIOS = 1024;
const LEAST_SEEN = 300;
