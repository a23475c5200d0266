import FFT from 'fft.js';
import { ONSET_BANDS, ONSETS_PER_SECOND } from './onsets';

/** How one recording lies against another. */
export interface SoundMatch {
  /** When the second begins, in seconds after the first; negative before it. */
  readonly offset: number;
  /** How much the best place stands out among all, in standard deviations. */
  readonly prominence: number;
}

/** A match that stands out less may be chance. */
const LEAST_PROMINENCE = 9;
/** It stands out so much more than the next best place elsewhere. */
const LEAST_LEAD = 1.25;
/** Places nearer than this are the same one, in windows. */
const SAME = 20;
/** Two recordings have so much in common at least, in seconds, or half of the shorter one. */
const LEAST_COMMON = 8;

/** Onsets of a band around their mean, loud ones damped, and zeros up to a length. */
function bandOf(onsets: Uint8Array, band: number, length: number): Float64Array {
  const out = new Float64Array(length);
  const count = Math.floor(onsets.length / ONSET_BANDS);
  let sum = 0;
  for (let i = 0; i < count; i++) sum += out[i] = Math.sqrt(onsets[i * ONSET_BANDS + band]!);
  let energy = 0;
  for (let i = 0; i < count; i++) {
    out[i]! -= sum / count;
    energy += out[i]! ** 2;
  }
  // Each band counts as much as the others.
  const scale = energy > 0 ? 1 / Math.sqrt(energy / count) : 0;
  for (let i = 0; i < count; i++) out[i]! *= scale;
  return out;
}

/** Sum over the bands of the correlation of two recordings at every distance, around the end. */
function correlate(a: Uint8Array, b: Uint8Array, size: number): number[] {
  const fft = new FFT(size);
  const total = fft.createComplexArray().fill(0);
  const [left, right] = [fft.createComplexArray(), fft.createComplexArray()];
  for (let band = 0; band < ONSET_BANDS; band++) {
    fft.realTransform(left, bandOf(a, band, size));
    fft.completeSpectrum(left);
    fft.realTransform(right, bandOf(b, band, size));
    fft.completeSpectrum(right);
    for (let i = 0; i < size * 2; i += 2) {
      const [ar, ai, br, bi] = [left[i]!, left[i + 1]!, right[i]!, right[i + 1]!];
      total[i]! += ar * br + ai * bi;
      total[i + 1]! += ai * br - ar * bi;
    }
  }
  fft.inverseTransform(left, total);
  return left;
}

/**
 * Finds how a recording lies against another by what both heard, from where sounds begin in each
 * (`OnsetMeter`): the distance at which their onsets agree best, by cross-correlation with the
 * Fourier transform, each distance by the part that both have in common there.
 *
 * @param a onsets of the first
 * @param b onsets of the second
 * @returns null where no distance stands out: they did not hear the same
 */
export function matchBySound(a: Uint8Array, b: Uint8Array): SoundMatch | null {
  const [la, lb] = [a, b].map(({ length }) => Math.floor(length / ONSET_BANDS)) as [number, number];
  const least = Math.min(LEAST_COMMON * ONSETS_PER_SECOND, Math.min(la, lb) / 2);
  if (least < 1) return null;
  let size = 2;
  while (size < la + lb) size *= 2;
  const sums = correlate(a, b, size);
  const first = Math.ceil(least) - lb;
  const last = la - Math.ceil(least);
  const scores = new Float64Array(Math.max(0, last - first + 1));
  let [mean, square] = [0, 0];
  for (let i = 0; i < scores.length; i++) {
    const lag = first + i;
    const common = Math.min(la, lag + lb) - Math.max(0, lag);
    // By its spread where there is nothing in common but chance.
    const score = sums[2 * ((lag + size) % size)]! / Math.sqrt(common);
    scores[i] = score;
    mean += score / scores.length;
    square += score ** 2 / scores.length;
  }
  const spread = Math.sqrt(square - mean ** 2);
  let best = 0;
  for (let i = 1; i < scores.length; i++) if (scores[i]! > scores[best]!) best = i;
  let next = -Infinity;
  for (let i = 0; i < scores.length; i++)
    if (Math.abs(i - best) > SAME) next = Math.max(next, scores[i]!);
  const prominence = spread > 0 ? (scores[best]! - mean) / spread : 0;
  if (prominence < LEAST_PROMINENCE || scores[best]! < next * LEAST_LEAD) return null;
  return { offset: (first + best + vertex(scores, best)) / ONSETS_PER_SECOND, prominence };
}

/** Where a parabola through the highest value and its neighbours is highest, from -0.5 to 0.5. */
function vertex(values: Float64Array, at: number): number {
  const [before, here, after] = [values[at - 1], values[at], values[at + 1]];
  if (before === undefined || after === undefined) return 0;
  const bend = before - 2 * here! + after;
  return bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
}
