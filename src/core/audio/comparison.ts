import type { ClockLine, ClockPoint } from './clock-line';
import { ONSET_RATE } from './onsets';
import { PhaseCorrelation } from './phat';

/** Sound of a recording at `ONSET_RATE`, one channel, that can be read anywhere. */
export interface ReadableSound {
  /** Samples. */
  readonly length: number;
  /**
   * Samples from -1 to 1; silence before the first and after the last.
   *
   * @param from index of the first
   */
  readonly read: (from: number, count: number) => Float32Array;
}

/** Voices lie between, in Hz; hum and the rustle of small microphones beyond. */
const BAND = [150 / ONSET_RATE, 3400 / ONSET_RATE] as const;
/** Below this mean square a piece is silent: it is the noise of the converter. */
const FLOOR = 1e-8;

/** How one clock is thought to run against another. */
export type Clocks = Pick<ClockLine, 'offset' | 'slope'>;
/** A distance of two clocks, and how far it stands out, in standard deviations. */
export type Measured = ClockPoint & { readonly height: number };

/** Measures how two sounds lie against one another around a time, by their phases. */
export class Comparison {
  private readonly correlations = new Map<number, PhaseCorrelation>();

  constructor(
    private readonly first: ReadableSound,
    private readonly second: ReadableSound,
  ) {}

  /** From when to when both have sound, by the second one's clock, in seconds. */
  common({ offset, slope }: Clocks): readonly [number, number] {
    const [a, b] = [this.first.length / ONSET_RATE, this.second.length / ONSET_RATE];
    return [Math.max(0, -offset / (1 + slope)), Math.min(b, (a - offset) / (1 + slope))];
  }

  /**
   * Measures the distance of the clocks around a time; null where one of them is silent.
   *
   * @param at middle of the piece, by the second one's clock
   * @param clocks what is known already; the piece is read by it, so that a drift does not smear it
   * @param reach how far from there it is looked for, in seconds
   */
  measure(at: number, seconds: number, clocks: Clocks, reach: number): Measured | null {
    const { offset, slope } = clocks;
    const count = Math.round(seconds * ONSET_RATE);
    const from = Math.round((at - seconds / 2) * ONSET_RATE);
    const b = this.second.read(from, count);
    const start = offset * ONSET_RATE + from * (1 + slope);
    const whole = Math.floor(start);
    const wide = this.first.read(whole, Math.ceil(count * (1 + slope)) + 2);
    const a = Float32Array.from({ length: count }, (_, i) => {
      const place = start - whole + i * (1 + slope);
      const [k, u] = [Math.floor(place), place % 1];
      return wide[k]! * (1 - u) + (wide[k + 1] ?? 0) * u;
    });
    if (square(a) < FLOOR || square(b) < FLOOR) return null;
    const { samples, height } = this.correlation(count).delay(a, b, reach * ONSET_RATE);
    // What the second one has later happened nearer to the beginning of the first.
    return { at, offset: offset + slope * at - (samples * (1 + slope)) / ONSET_RATE, height };
  }

  private correlation(count: number): PhaseCorrelation {
    let found = this.correlations.get(count);
    if (!found) this.correlations.set(count, (found = new PhaseCorrelation(count, BAND)));
    return found;
  }
}

const square = (sound: Float32Array): number => {
  let sum = 0;
  for (const sample of sound) sum += sample * sample;
  return sum / Math.max(1, sound.length);
};
