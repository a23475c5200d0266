/** Level in dBFS of an amplitude (1 is full scale); -120 for silence. */
export const toDecibels = (amplitude: number): number =>
  Math.max(-120, 20 * Math.log10(Math.max(amplitude, 1e-6)));

/** Amplitude of a level in dBFS. */
export const fromDecibels = (decibels: number): number => 10 ** (decibels / 20);

export interface Level {
  /** dBFS. */
  readonly peak: number;
  readonly rms: number;
}

/** Peak and RMS of samples, dBFS. */
export function levelOf(samples: ArrayLike<number>): Level {
  let peak = 0;
  let sum = 0;
  for (let i = 0; i < samples.length; i++) {
    const v = Math.abs(samples[i]!);
    if (v > peak) peak = v;
    sum += v * v;
  }
  return { peak: toDecibels(peak), rms: toDecibels(Math.sqrt(sum / Math.max(1, samples.length))) };
}

/** How loud a voice is, by its peaks, in words: where to turn the gain. */
export type LevelZone = 'silent' | 'quiet' | 'good' | 'loud' | 'clipping';

/**
 * Lower ends of the zones in dBFS. Speech whose peaks lie between -18 and -6 leaves room above and
 * noise below.
 */
export const ZONES: readonly (readonly [zone: LevelZone, from: number])[] = [
  ['silent', -120],
  ['quiet', -50],
  ['good', -20],
  ['loud', -6],
  ['clipping', -0.5],
];

/** The zone of a peak level in dBFS. */
export const zoneOf = (peak: number): LevelZone =>
  ZONES.findLast(([, from]) => peak >= from)?.[0] ?? 'silent';
