import { alignSounds, type Alignment } from './align';
import { ONSET_RATE } from './onsets';
import { drifted, elsewhere, noisy, onsetsOf, random, readable, talk } from './testing';

const align = (a: Float32Array, b: Float32Array): Alignment =>
  alignSounds({ onsets: [onsetsOf(a), onsetsOf(b)], sounds: [readable(a), readable(b)] });
const from = (sound: Float32Array, seconds: number) => sound.subarray(seconds * ONSET_RATE);

/** An alignment that was found, or the test fails. */
function found(a: Float32Array, b: Float32Array) {
  const alignment = align(a, b);
  if (alignment.kind !== 'aligned') throw new Error(JSON.stringify(alignment));
  return alignment;
}

const ROOM = talk(60, 1);
const HEARD = elsewhere(from(ROOM, 12), 7);

test.each([
  ['another microphone', ROOM, HEARD],
  ['noise as loud as the voice in both', noisy(ROOM, 0, 2), noisy(HEARD, 0, 3)],
  ['a far quieter one', ROOM, HEARD.map((sample) => sample * 0.01)],
])('%s is found to within a millisecond, both ways', (_name, a, b) => {
  const there = found(a, b);
  expect(Math.abs(there.offset - 12)).toBeLessThan(0.001);
  expect(there.ppm).toBeCloseTo(0, 0);
  expect(there.confidence).toBeGreaterThan(0.6);
  expect(Math.abs(found(b, a).offset + 12)).toBeLessThan(0.001);
});

test.each([100, -50, 300])(
  'a clock that is %s millionths off is found, with where it begins',
  (ppm) => {
    const there = found(ROOM, drifted(HEARD, ppm));
    expect(Math.abs(there.offset - 12)).toBeLessThan(0.001);
    expect(Math.abs(there.ppm - ppm)).toBeLessThan(5);
    // By the other's clock it is the other way about.
    const back = found(drifted(HEARD, ppm), ROOM);
    expect(Math.abs(back.ppm + ppm)).toBeLessThan(5);
    expect(Math.abs(back.offset + 12 * (1 - ppm * 1e-6))).toBeLessThan(0.001);
  },
);

test('a short one that begins far into a long one is found', () => {
  const long = talk(400, 9);
  const part = elsewhere(long.subarray(351.3 * ONSET_RATE, 366.3 * ONSET_RATE), 5);
  expect(Math.abs(found(long, part).offset - 351.3)).toBeLessThan(0.001);
});

test('two that overlap at their ends only are found', () => {
  const all = talk(300, 4);
  const b = drifted(elsewhere(from(all, 140), 2), 80);
  expect(Math.abs(found(all.subarray(0, 185 * ONSET_RATE), b).offset - 140)).toBeLessThan(0.001);
});

test('what did not hear the same is refused, and silence is said', () => {
  for (const seed of [21, 22, 23, 24])
    expect(align(ROOM, elsewhere(talk(60, seed), seed))).toEqual({ kind: 'unrelated' });
  const silence = new Float32Array(20 * ONSET_RATE);
  const next = random(1);
  const hiss = silence.map(() => (next() - 0.5) * 0.001);
  expect(align(silence, ROOM)).toEqual({ kind: 'silent', which: 'first' });
  expect(align(ROOM, silence)).toEqual({ kind: 'silent', which: 'second' });
  expect(align(ROOM, new Float32Array(0))).toEqual({ kind: 'silent', which: 'second' });
  expect(align(ROOM, hiss).kind).not.toBe('aligned');
});

test('a melody that repeats itself has several places', () => {
  const bar = talk(4, 6);
  const loop = new Float32Array(60 * ONSET_RATE).map((_, i) => bar[i % bar.length]!);
  const alignment = align(loop, elsewhere(loop.subarray(0, 20 * ONSET_RATE), 3));
  if (alignment.kind !== 'unsure') throw new Error(JSON.stringify(alignment));
  expect(alignment.candidates.length).toBeGreaterThan(1);
  for (const offset of alignment.candidates)
    expect(Math.abs(offset / 4 - Math.round(offset / 4))).toBeLessThan(0.01);
});
