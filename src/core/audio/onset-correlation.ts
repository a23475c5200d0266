import FFT from 'fft.js';
import { ONSET_BANDS } from './onsets';

/** How well onsets agree at each distance at which two recordings have enough in common. */
export interface LagScores {
  /** The first of the distances, in windows; the next ones follow window by window. */
  readonly first: number;
  readonly scores: Float64Array;
  readonly mean: number;
  /** Standard deviation of the scores. */
  readonly spread: number;
}

/** Windows of a recording's onsets. */
export const windowsOf = (onsets: Uint8Array): number => Math.floor(onsets.length / ONSET_BANDS);

/** Onsets of a band around their mean, loud ones damped, and zeros up to a length. */
function bandOf(onsets: Uint8Array, band: number, length: number): Float64Array {
  const out = new Float64Array(length);
  const count = windowsOf(onsets);
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

/**
 * Correlates the onsets of one recording (`OnsetMeter`) with those of others, or of pieces of them,
 * by the Fourier transform; its own spectra are worked out once.
 */
export class OnsetCorrelation {
  private readonly fft: FFT;
  private readonly size: number;
  private readonly length: number;
  private readonly spectra: readonly number[][];
  private readonly other: number[];
  private readonly total: number[];

  /** @param longest windows of the longest of the others */
  constructor(onsets: Uint8Array, longest: number) {
    this.length = windowsOf(onsets);
    let size = 2;
    while (size < this.length + longest) size *= 2;
    this.size = size;
    this.fft = new FFT(size);
    this.spectra = Array.from({ length: ONSET_BANDS }, (_, band) => this.spectrum(onsets, band));
    this.other = this.fft.createComplexArray();
    this.total = this.fft.createComplexArray();
  }

  private spectrum(onsets: Uint8Array, band: number, into?: number[]): number[] {
    const out = into ?? this.fft.createComplexArray();
    this.fft.realTransform(out, bandOf(onsets, band, this.size));
    this.fft.completeSpectrum(out);
    return out;
  }

  /**
   * How well another's onsets agree at each distance, summed over the bands, each distance by the
   * part that both have in common there.
   *
   * @param least windows that both have in common at least
   */
  scores(other: Uint8Array, least: number): LagScores {
    const { fft, size, total, length } = this;
    const windows = windowsOf(other);
    total.fill(0);
    this.spectra.forEach((spectrum, band) => {
      const their = this.spectrum(other, band, this.other);
      for (let i = 0; i < size * 2; i += 2) {
        const [ar, ai, br, bi] = [spectrum[i]!, spectrum[i + 1]!, their[i]!, their[i + 1]!];
        total[i]! += ar * br + ai * bi;
        total[i + 1]! += ai * br - ar * bi;
      }
    });
    fft.inverseTransform(this.other, total);
    const first = Math.ceil(least) - windows;
    const last = length - Math.ceil(least);
    const scores = new Float64Array(Math.max(0, last - first + 1));
    let [mean, square] = [0, 0];
    for (let i = 0; i < scores.length; i++) {
      const lag = first + i;
      const common = Math.min(length, lag + windows) - Math.max(0, lag);
      // By its spread where there is nothing in common but chance.
      const score = this.other[2 * ((lag + size) % size)]! / Math.sqrt(common);
      scores[i] = score;
      mean += score / scores.length;
      square += score ** 2 / scores.length;
    }
    return { first, scores, mean, spread: Math.sqrt(Math.max(0, square - mean ** 2)) };
  }
}
