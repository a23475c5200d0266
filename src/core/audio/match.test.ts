import { matchBySound } from './match';
import { ONSET_BANDS, ONSET_RATE, ONSETS_PER_SECOND } from './onsets';
import { elsewhere, onsetsOf, talk } from './testing';

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
