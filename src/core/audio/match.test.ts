import { matchBySound } from './match';
import { ONSET_BANDS, ONSET_RATE, OnsetMeter, ONSETS_PER_SECOND } from './onsets';

/** Random numbers from 0 to 1 that are the same in each run. */
function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** Bursts of tone and noise at odd times, as speech has them. */
function talk(seconds: number, seed: number): Float32Array {
  const next = random(seed);
  const out = new Float32Array(seconds * ONSET_RATE);
  for (let at = 0; at < out.length; at += Math.floor((0.08 + next() * 0.5) * ONSET_RATE)) {
    const [length, pitch, loud, noisy] = [next() * 0.25, 100 + next() * 1500, next(), next()];
    for (let i = 0; i < length * ONSET_RATE && at + i < out.length; i++) {
      const tone = Math.sin((2 * Math.PI * pitch * i) / ONSET_RATE);
      const fall = Math.exp(-i / (0.08 * ONSET_RATE));
      out[at + i]! += loud * fall * (tone * (1 - noisy) + (next() - 0.5) * noisy);
    }
  }
  return out;
}

/** As another microphone hears it: duller, softer, with echo and noise of its own. */
function elsewhere(sound: Float32Array, seed: number): Float32Array {
  const next = random(seed);
  let dull = 0;
  return sound.map((sample, i) => {
    const echoed = sample + 0.4 * (sound[i - 300] ?? 0) + 0.3 * (sound[i - 900] ?? 0);
    dull += 0.5 * (echoed - dull);
    return 0.2 * dull + (next() - 0.5) * 0.004;
  });
}

function onsetsOf(sound: Float32Array): Uint8Array {
  const meter = new OnsetMeter();
  // In pieces of odd lengths, as they come.
  for (let at = 0; at < sound.length; at += 1237) meter.take(sound.subarray(at, at + 1237));
  return meter.result();
}

test.each([0, 3.217, -2.5, 11.0305])(
  'another microphone is found to begin %s s later',
  (offset) => {
    const room = talk(40, 1);
    const from = (seconds: number) => room.subarray(Math.round(seconds * ONSET_RATE));
    const [a, b] = [from(Math.max(0, -offset)), from(Math.max(0, offset))];
    const found = matchBySound(onsetsOf(a), onsetsOf(elsewhere(b, 7)));
    expect(found).not.toBeNull();
    // Well within a frame: a third of one at 30 frames a second.
    expect(Math.abs(found!.offset - offset)).toBeLessThan(0.011);
    // Turned about, it lies the other way.
    const turned = matchBySound(onsetsOf(elsewhere(b, 7)), onsetsOf(a));
    expect(turned!.offset).toBeCloseTo(-found!.offset, 2);
  },
);

test('a short one within a long one is found', () => {
  const room = talk(120, 3);
  const part = room.subarray(70.5 * ONSET_RATE, 84 * ONSET_RATE);
  expect(matchBySound(onsetsOf(room), onsetsOf(elsewhere(part, 5)))?.offset).toBeCloseTo(70.5, 1);
});

test('recordings that heard nothing together are not matched', () => {
  const tone = Float32Array.from({ length: 20 * ONSET_RATE }, (_, i) => Math.sin(i / 3) * 0.5);
  const others = [talk(40, 11), talk(25, 12), tone, new Float32Array(20 * ONSET_RATE), talk(1, 4)];
  const room = onsetsOf(talk(40, 1));
  for (const other of others) expect(matchBySound(room, onsetsOf(other))).toBeNull();
  expect(matchBySound(room, new Uint8Array(0))).toBeNull();
  expect(matchBySound(new Uint8Array(0), new Uint8Array(0))).toBeNull();
});

test('a knock is an onset where it is, and what lasts is none', () => {
  const sound = new Float32Array(2 * ONSET_RATE);
  for (let i = 0; i < ONSET_RATE; i++) sound[ONSET_RATE + i] = Math.sin(i) * 0.5;
  const onsets = onsetsOf(sound);
  expect(onsets).toHaveLength(2 * ONSETS_PER_SECOND * ONSET_BANDS);
  const strength = (window: number) =>
    Math.max(...onsets.subarray(window * ONSET_BANDS, (window + 1) * ONSET_BANDS));
  expect(strength(ONSETS_PER_SECOND)).toBeGreaterThan(100);
  for (const quiet of [10, ONSETS_PER_SECOND - 1, ONSETS_PER_SECOND + 20])
    expect(strength(quiet)).toBeLessThan(12);
});
