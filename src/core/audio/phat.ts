import FFT from 'fft.js';
import { vertex } from './vertex';

/** How much later one piece of sound has what another has. */
export interface Delay {
  /** In samples, with fractions; positive where the second has it later. */
  readonly samples: number;
  /** How far the best delay stands out, in standard deviations of all that were looked at. */
  readonly height: number;
}

/** The highest value is left out of the spread with so many beside it. */
const BESIDE = 6;

/**
 * Finds how much one piece of sound lags behind another of the same length: generalised
 * cross-correlation with phase transform (Knapp and Carter, The Generalized Correlation Method for
 * Estimation of Time Delay, 1976), each frequency of a band counting alike whatever the colour of
 * the two microphones, and a parabola through the highest value.
 */
export class PhaseCorrelation {
  private readonly fft: FFT;
  private readonly size: number;
  private readonly spectra: readonly [number[], number[]];
  private readonly crossed: number[];
  private readonly padded: Float64Array;

  /**
   * @param length samples of each piece, at most
   * @param band the lowest and highest frequency that count, in shares of the sample rate
   */
  constructor(
    length: number,
    private readonly band: readonly [number, number],
  ) {
    let size = 2;
    while (size < length * 2) size *= 2;
    this.size = size;
    this.fft = new FFT(size);
    this.spectra = [this.fft.createComplexArray(), this.fft.createComplexArray()];
    this.crossed = this.fft.createComplexArray();
    this.padded = new Float64Array(size);
  }

  private transform(sound: Float32Array, into: number[]): void {
    const { padded } = this;
    padded.fill(0);
    // Without edges, which both pieces would have in common.
    for (let i = 0; i < sound.length; i++)
      padded[i] = sound[i]! * (0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / sound.length));
    this.fft.realTransform(into, padded);
  }

  /**
   * The delay of `b` behind `a`, of no more than `most` samples either way; its height is 0 where
   * one of them is silent.
   */
  delay(a: Float32Array, b: Float32Array, most: number): Delay {
    const { fft, size, crossed } = this;
    const [left, right] = this.spectra;
    this.transform(a, left);
    this.transform(b, right);
    crossed.fill(0);
    const [low, high] = this.band.map((share) => Math.round(share * size)) as [number, number];
    for (let bin = Math.max(1, low); bin <= Math.min(high, size / 2 - 1); bin++) {
      const i = bin * 2;
      const [ar, ai, br, bi] = [left[i]!, left[i + 1]!, right[i]!, right[i + 1]!];
      const [re, im] = [ar * br + ai * bi, ar * bi - ai * br];
      const size2 = Math.hypot(re, im);
      if (size2 <= 1e-20) continue;
      crossed[i] = re / size2;
      crossed[i + 1] = im / size2;
    }
    fft.completeSpectrum(crossed);
    fft.inverseTransform(left, crossed);
    const reach = Math.min(Math.ceil(most), size / 2 - 1);
    const values = Float64Array.from(
      { length: reach * 2 + 1 },
      (_, i) => left[2 * ((i - reach + size) % size)]!,
    );
    let best = 0;
    for (let i = 1; i < values.length; i++) if (values[i]! > values[best]!) best = i;
    let [square, count] = [0, 0];
    for (let i = 0; i < values.length; i++)
      if (Math.abs(i - best) > BESIDE) [square, count] = [square + values[i]! ** 2, count + 1];
    const spread = count ? Math.sqrt(square / count) : 0;
    return {
      samples: best - reach + vertex(values, best),
      height: spread > 1e-12 ? values[best]! / spread : 0,
    };
  }
}
