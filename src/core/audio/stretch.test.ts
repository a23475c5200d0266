import { SAMPLE_RATE, silence, type SoundSegment, type Stereo } from './mix';
import type { ReadSound } from './read-sound';
import { segmentReader, TimeStretch } from './stretch';

/**
 * A recording of a tone whose loudness steps up each second, so that it tells where in it one is.
 */
const recording = (seconds: number, hertz = 220): { sound: Stereo; read: ReadSound } => {
  const sound = silence(seconds * SAMPLE_RATE);
  for (let i = 0; i < sound[0].length; i++) {
    const level = 0.1 * (1 + Math.floor(i / SAMPLE_RATE));
    sound[0][i] = sound[1][i] = level * Math.sin((2 * Math.PI * hertz * i) / SAMPLE_RATE);
  }
  const read: ReadSound = (from, count) => {
    const out = silence(count);
    for (const side of [0, 1] as const)
      out[side].set(sound[side].subarray(Math.max(0, from), Math.max(0, from) + count));
    return Promise.resolve(out);
  };
  return { sound, read };
};

const crossings = (samples: Float32Array) => {
  let count = 0;
  for (let i = 1; i < samples.length; i++) if (samples[i - 1]! < 0 && samples[i]! >= 0) count++;
  return count;
};
const peak = (samples: Float32Array) => samples.reduce((most, v) => Math.max(most, Math.abs(v)), 0);

test.each([0.5, 0.75, 1.5, 2, 4])(
  'at %f times its speed a tone keeps its pitch and passes through its footage in time',
  async (speed) => {
    const { read } = recording(8);
    const stretch = new TimeStretch(read, 0, speed);
    const length = Math.floor((7 / speed) * SAMPLE_RATE);
    const parts: Float32Array[] = [];
    // In uneven pieces, as a mix asks for them.
    for (let at = 0; at < length; at += 9_999)
      parts.push((await stretch.at(at, Math.min(9_999, length - at)))[0]);
    const out = Float32Array.from(parts.flatMap((p) => [...p]));
    expect(Math.abs(crossings(out) / (length / SAMPLE_RATE) - 220)).toBeLessThan(3);
    for (let second = 0; second < 7; second++) {
      const from = Math.round(((second + 0.4) / speed) * SAMPLE_RATE);
      expect(peak(out.subarray(from, from + 2000))).toBeCloseTo(0.1 * (1 + second), 1);
    }
  },
);

test('the same stretch is heard wherever one begins, but for the fit of the waves', async () => {
  const { read } = recording(8);
  const whole = await new TimeStretch(read, 0, 2).at(0, SAMPLE_RATE * 3);
  const late = await new TimeStretch(read, 0, 2).at(SAMPLE_RATE * 2, SAMPLE_RATE);
  expect(peak(late[0])).toBeCloseTo(peak(whole[0].subarray(SAMPLE_RATE * 2)), 2);
});

test('at its own speed a segment is the recording itself, from its source on', async () => {
  const { sound, read } = recording(2);
  const segment = { source: 1000, speed: 1 } as SoundSegment;
  expect([...(await segmentReader(segment, read)(50, 20))[0]]).toEqual([
    ...sound[0].subarray(1050, 1070),
  ]);
});
