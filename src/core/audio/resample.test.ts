import { clockSpeed } from '../project/clip-time';
import { SAMPLE_RATE, silence, type SoundSegment } from './mix';
import type { ReadSound } from './read-sound';
import { resampled } from './resample';
import { segmentReader } from './stretch';

const tone = (hertz: number): ReadSound => {
  const at = (i: number) => Math.sin((2 * Math.PI * hertz * i) / SAMPLE_RATE);
  return (from, count) => {
    const out = silence(count);
    for (const side of [0, 1] as const) for (let i = 0; i < count; i++) out[side][i] = at(from + i);
    return Promise.resolve(out);
  };
};

test.each([220, 3000, 12_000])('a tone of %s Hz is told by another clock', async (hertz) => {
  const speed = clockSpeed(137);
  const read = resampled(tone(hertz), 4800, speed);
  const [left, right] = await read(480_000, 2000);
  let worst = 0;
  for (let i = 0; i < left.length; i++) {
    const place = 4800 + (480_000 + i) * speed;
    const truth = Math.sin((2 * Math.PI * hertz * place) / SAMPLE_RATE);
    worst = Math.max(worst, Math.abs(left[i]! - truth));
  }
  // 70 dB below the tone, which no microphone reaches.
  expect(worst).toBeLessThan(3e-4);
  expect(right).toEqual(left);
});

test('pieces are what the whole is, and before the recording it is silent', async () => {
  const read = resampled(tone(700), 10, clockSpeed(-90));
  const [whole] = await read(0, 3000);
  const parts: number[] = [];
  for (let at = 0; at < 3000; at += 777)
    parts.push(...(await read(at, Math.min(777, 3000 - at)))[0]);
  expect(Float32Array.from(parts)).toEqual(whole);
  const [before] = await resampled(tone(700), -500, 1.0001)(0, 300);
  expect(Math.max(...before.map(Math.abs))).toBe(0);
});

test('a segment whose speed makes up for a clock is resampled, one of another speed keeps its pitch', async () => {
  const segment = { source: 0, speed: clockSpeed(100) } as SoundSegment;
  const mine = await segmentReader(segment, tone(500))(1000, 64);
  expect(mine).toEqual(await resampled(tone(500), 0, segment.speed)(1000, 64));
});
