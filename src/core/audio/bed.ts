/*
 * Music beds: quiet, without a melody that would draw attention from the voice, and loopable, since
 * their length is a whole number of bars and everything that repeats in them repeats with the bars.
 */

export const BED_NAMES = ['slow-clay', 'morning-studio', 'turning-wheel', 'night-kiln'] as const;
export type BedName = (typeof BED_NAMES)[number];

interface Bed {
  readonly title: string;
  /** Seconds of a bar, and how many there are. */
  readonly bar: number;
  readonly bars: number;
  /** Frequencies in Hz of each bar's chord; they repeat. */
  readonly chords: readonly (readonly number[])[];
  /** Plucked notes in a bar, and how fast they fade, in 1/s. */
  readonly beats: number;
  readonly decay: number;
  /** Loudness of the plucked notes and of the held chord. */
  readonly pluck: number;
  readonly pad: number;
}

export const BEDS: Readonly<Record<BedName, Bed>> = {
  'slow-clay': {
    title: 'Slow clay',
    bar: 4.8,
    bars: 16,
    chords: [
      [220, 277.18, 329.63],
      [196, 246.94, 329.63],
      [174.61, 220, 261.63],
      [196, 246.94, 293.66],
    ],
    beats: 8,
    decay: 7,
    pluck: 0.08,
    pad: 0.06,
  },
  'morning-studio': {
    title: 'Morning studio',
    bar: 2.4,
    bars: 32,
    chords: [
      [261.63, 329.63, 392],
      [220, 261.63, 329.63],
      [174.61, 220, 261.63],
      [196, 246.94, 293.66],
    ],
    beats: 8,
    decay: 11,
    pluck: 0.12,
    pad: 0.03,
  },
  'turning-wheel': {
    title: 'Turning wheel',
    bar: 3.2,
    bars: 24,
    chords: [
      [146.83, 220, 293.66],
      [164.81, 246.94, 329.63],
      [130.81, 196, 261.63],
    ],
    beats: 12,
    decay: 14,
    pluck: 0.1,
    pad: 0.04,
  },
  'night-kiln': {
    title: 'Night kiln',
    bar: 6,
    bars: 12,
    chords: [
      [110, 164.81, 261.63],
      [98, 146.83, 246.94],
      [87.31, 130.81, 220],
    ],
    beats: 2,
    decay: 1.6,
    pluck: 0.09,
    pad: 0.09,
  },
};

/** Detuning of the two sides against each other, as a share. */
const DETUNE = 0.001;

/** Synthesises a bed: two channels at a sample rate in Hz, below -8 dBFS. */
export function makeBed(name: BedName, rate: number): [Float32Array, Float32Array] {
  const { bar, bars, chords, beats, decay, pluck, pad } = BEDS[name];
  const length = Math.round(bar * bars * rate);
  const out: [Float32Array, Float32Array] = [new Float32Array(length), new Float32Array(length)];
  const beat = bar / beats;
  for (let i = 0; i < length; i++) {
    const t = i / rate;
    const chord = chords[Math.floor(t / bar) % chords.length]!;
    const swell = Math.sin(Math.PI * ((t % bar) / bar)) ** 0.6;
    const since = t % beat;
    const note = chord[Math.floor(t / beat) % chord.length]! * 2;
    const attack = Math.min(1, since * 200) * Math.min(1, (beat - since) * 200);
    const plucked =
      Math.exp(-since * decay) * Math.sin(2 * Math.PI * note * since) * pluck * attack;
    out[0][i] = plucked;
    out[1][i] = plucked * 0.8;
    for (const f of chord) {
      out[0][i]! += Math.sin(2 * Math.PI * f * (1 - DETUNE) * t) * pad * swell;
      out[1][i]! += Math.sin(2 * Math.PI * f * (1 + DETUNE) * t + 0.6) * pad * swell;
    }
  }
  return out;
}
