/** Sample rate of the sound that onsets are found in: mono, 16 bits. */
export const ONSET_RATE = 8000;
/** Windows a second: 5 ms each. */
export const ONSETS_PER_SECOND = 200;
/** Parts of the spectrum that are looked at by themselves. */
export const ONSET_BANDS = 3;

const WINDOW = ONSET_RATE / ONSETS_PER_SECOND;
/** Where the lower bands end, in Hz. */
const CROSSOVERS = [500, 1500] as const;
/** Below this mean square nothing begins: it is the noise of the converter. */
const FLOOR = 1e-7;
/** The level before falls back by this share in each window, so that echoes begin nothing. */
const RELEASE = 0.2;
/** Steps of the result for each decibel that a level rises. */
const STEPS = 8;

const coefficient = (hertz: number): number => 1 - Math.exp((-2 * Math.PI * hertz) / ONSET_RATE);
const LOW = coefficient(CROSSOVERS[0]);
const MIDDLE = coefficient(CROSSOVERS[1]);

/**
 * Finds where sounds begin: for each 5 ms and each of three bands (to 500 Hz, to 1500 Hz, above) by
 * how much the level rises over what it was, in eighths of a decibel, 0 to 255. Two microphones that
 * hear the same differ in level, colour and echo, and hardly in when sounds begin (spectral flux:
 * Bello et al., A Tutorial on Onset Detection in Music Signals, 2005).
 */
export class OnsetMeter {
  private readonly found: number[] = [];
  private count = 0;
  private low = 0;
  private middle = 0;
  private readonly energy = [0, 0, 0];
  private readonly before = [FLOOR, FLOOR, FLOOR];

  /** Takes the next samples, -1 to 1, at `ONSET_RATE`. */
  take(samples: Float32Array): void {
    const { energy } = this;
    for (const sample of samples) {
      this.low += LOW * (sample - this.low);
      this.middle += MIDDLE * (sample - this.middle);
      const [a, b, c] = [this.low, this.middle - this.low, sample - this.middle];
      energy[0]! += a * a;
      energy[1]! += b * b;
      energy[2]! += c * c;
      if (++this.count === WINDOW) this.close();
    }
  }

  /** What was found: the bands of the first window, those of the second, and so on. */
  result(): Uint8Array {
    return Uint8Array.from(this.found);
  }

  private close(): void {
    for (let band = 0; band < ONSET_BANDS; band++) {
      const now = FLOOR + this.energy[band]! / WINDOW;
      const rise = 10 * Math.log10(now / this.before[band]!);
      this.found.push(Math.max(0, Math.min(255, Math.round(rise * STEPS))));
      this.before[band] = Math.max(now, this.before[band]! * (1 - RELEASE));
      this.energy[band] = 0;
    }
    this.count = 0;
  }
}
