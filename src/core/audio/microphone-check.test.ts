import { fromDecibels, levelOf, zoneOf } from './levels';
import { checkMicrophone, microphoneAdvice, toneAmplitude } from './microphone-check';

const RATE = 48_000;

/**
 * Something like speech: bursts of a changing tone with pauses, over noise and hum; levels in dBFS.
 */
function speech({
  voice,
  noise = -80,
  hum = -120,
}: {
  voice: number;
  noise?: number;
  hum?: number;
}): Float32Array {
  const out = new Float32Array(RATE * 5);
  let seed = 1;
  for (let i = 0; i < out.length; i++) {
    const t = i / RATE;
    const says = t % 0.8 < 0.5 ? Math.sin(Math.PI * ((t % 0.8) / 0.5)) : 0;
    const tone =
      Math.sin(2 * Math.PI * (180 + 40 * Math.sin(t * 3)) * t) +
      0.5 * Math.sin(2 * Math.PI * 740 * t);
    seed = (seed * 1664525 + 1013904223) >>> 0;
    const hiss = (seed / 2 ** 31 - 1) * Math.sqrt(3) * fromDecibels(noise);
    out[i] = Math.max(
      -1,
      Math.min(
        1,
        says * tone * fromDecibels(voice) * 1.4 +
          hiss +
          Math.sin(2 * Math.PI * 50 * t) * fromDecibels(hum) * Math.SQRT2,
      ),
    );
  }
  return out;
}

test('a full-scale sine has a peak of 0 and an RMS of -3.01 dBFS', () => {
  const sine = Float32Array.from({ length: RATE }, (_, i) =>
    Math.sin((2 * Math.PI * 1000 * i) / RATE),
  );
  const { peak, rms } = levelOf(sine);
  expect(peak).toBeCloseTo(0, 3);
  expect(rms).toBeCloseTo(-3.01, 2);
  expect(toneAmplitude(sine, RATE, 1000)).toBeCloseTo(1, 2);
  expect(toneAmplitude(sine, RATE, 1200)).toBeLessThan(0.001);
});

test('zones', () =>
  expect([-90, -40, -12, -3, -0.1].map(zoneOf)).toEqual([
    'silent',
    'quiet',
    'good',
    'loud',
    'clipping',
  ]));

test.each([
  ['good', { voice: -18 }],
  ['too quiet', { voice: -42 }],
  ['clipping', { voice: 8 }],
  ['noisy', { voice: -20, noise: -32 }],
  ['hum', { voice: -18, hum: -44 }],
  ['silent', { voice: -110, noise: -110 }],
] as const)('%s', (verdict, what) => {
  const check = checkMicrophone(speech(what), RATE);
  expect(check.verdict).toBe(verdict);
  expect(microphoneAdvice(check)).toMatch(/[.]$/);
});

test('the proposed gain brings the speech to its level, and never over full scale', () => {
  for (const voice of [-45, -30, -24]) {
    const samples = speech({ voice });
    const { gain } = checkMicrophone(samples, RATE);
    const louder = samples.map((v) => v * fromDecibels(gain));
    expect(levelOf(louder).peak).toBeLessThanOrEqual(0);
    const after = checkMicrophone(louder, RATE);
    expect(Math.abs(after.gain)).toBeLessThanOrEqual(voice < -40 ? 8 : 2);
  }
});

test('hum at 60 Hz is told from 50', () => {
  const samples = Float32Array.from(
    { length: RATE * 5 },
    (_, i) => 0.02 * Math.sin((2 * Math.PI * 60 * i) / RATE),
  );
  expect(checkMicrophone(samples, RATE).hum).toBe(60);
});
