import { alignSounds, type Alignment } from '@/core/audio/align';
import { ONSET_RATE } from '@/core/audio/onsets';
import { drifted, elsewhere, noisy, onsetsOf, readable, talk } from '@/core/audio/testing';
import { median, table } from './measure';

/*
 * Recordings that heard the same, lined up by it: how far beginnings and drifts are from the truth
 * for pairs of three lengths, each in several rooms, and how many of 200 pairs that heard nothing
 * together are taken for such.
 */
const ROOMS = 8;
const STRANGERS = 200;
const TOLD_PPM = 100;

interface Pair {
  readonly a: Float32Array;
  readonly b: Float32Array;
  readonly offset: number;
  readonly ppm: number;
}

const align = (a: Float32Array, b: Float32Array): Alignment =>
  alignSounds({ onsets: [onsetsOf(a), onsetsOf(b)], sounds: [readable(a), readable(b)] });

/** A voice in a room, and the same from some time on as it may be heard elsewhere. */
type Way = (room: Float32Array, later: Float32Array, seed: number) => Omit<Pair, 'offset'>;

const echoing = (sound: Float32Array): Float32Array =>
  sound.map((sample, i) => sample + 0.7 * (sound[i - 700] ?? 0) + 0.5 * (sound[i - 2100] ?? 0));

const WAYS: Readonly<Record<string, Way>> = {
  'another microphone': (a, b, seed) => ({ a, b: elsewhere(b, seed), ppm: 0 }),
  'noise as loud as the voice, in both': (a, b, seed) => ({
    a: noisy(a, 0, seed + 50),
    b: noisy(b, 0, seed + 60),
    ppm: 0,
  }),
  'a room that echoes': (a, b) => ({ a, b: echoing(b), ppm: 0 }),
  '40 dB quieter': (a, b) => ({ a, b: b.map((sample) => sample * 0.01), ppm: 0 }),
  'a clock 100 ppm off': (a, b, seed) => ({
    a,
    b: drifted(elsewhere(b, seed), TOLD_PPM),
    ppm: TOLD_PPM,
  }),
  'all of it at once': (a, b, seed) => ({
    a: noisy(a, 6, seed + 50),
    b: noisy(drifted(elsewhere(echoing(b), seed), -TOLD_PPM), 6, seed + 60),
    ppm: -TOLD_PPM,
  }),
};

export function benchMatch(): void {
  console.log('\n## Lining up by sound\n');
  const rows = Object.entries(WAYS).flatMap(([name, way]) =>
    [20, 60, 300].map((seconds) => {
      const errors: number[] = [];
      const drifts: number[] = [];
      let none = 0;
      for (let seed = 1; seed <= ROOMS; seed++) {
        const room = talk(seconds, seed * 7 + seconds);
        const offset = (seconds / 5) * (0.5 + seed / ROOMS / 2);
        const later = room.subarray(Math.round(offset * ONSET_RATE));
        const { a, b, ppm } = way(room, later, seed);
        const found = align(a, b);
        if (found.kind !== 'aligned') none++;
        else {
          const exact = Math.round(offset * ONSET_RATE) / ONSET_RATE;
          errors.push(Math.abs(found.offset - exact) * 1000);
          drifts.push(Math.abs(found.ppm - ppm));
        }
      }
      const all = (values: readonly number[], digits: number) =>
        values.length
          ? `${median(values).toFixed(digits)} (${Math.max(...values).toFixed(digits)})`
          : 'none';
      return [name, `${seconds} s`, all(errors, 3), all(drifts, 2), `${none} of ${ROOMS}`];
    }),
  );
  console.log(
    table(['heard', 'length', 'error, ms (worst)', 'drift error, ppm (worst)', 'not found'], rows),
  );
  let wrong = 0;
  for (let i = 0; i < STRANGERS; i++) {
    const seconds = 15 + (i % 5) * 15;
    const [a, b] = [talk(seconds, 1000 + i), elsewhere(talk(45, 3000 + i), i)];
    if (align(a, i % 2 ? noisy(b, 6, i) : b).kind !== 'unrelated') wrong++;
  }
  console.log(`\nPairs that heard nothing together and were matched: ${wrong} of ${STRANGERS}`);
}
