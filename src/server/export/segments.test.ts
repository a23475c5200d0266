import { rateFromNumber } from '@/core/time/ticks';
import { segmentsOf } from './export-file';

const RATE = rateFromNumber(30);
const [cut, alone] = [
  { format: 'mp4', frameRate: RATE } as const,
  { format: 'av1', frameRate: RATE } as const,
];

test('runs are cut from key frame to key frame', () => {
  expect(segmentsOf(130, cut, 2)).toEqual([
    { first: 0, last: 60 },
    { first: 60, last: 120 },
    { first: 120, last: 130 },
  ]);
});

test('runs are cut evenly over the threads where the encoder can not cut', () => {
  expect(segmentsOf(260, alone, 2)).toEqual([
    { first: 0, last: 130 },
    { first: 130, last: 260 },
  ]);
  expect(segmentsOf(20, alone, 8)).toEqual([{ first: 0, last: 20 }]);
});

test.each([
  [1, 4],
  [301, 2],
  [108000, 2],
  [2358, 3],
])('%i frames for %i threads, without a gap, none empty or long', (frames, threads) => {
  for (const settings of [cut, alone]) {
    const segments = segmentsOf(frames, settings, threads);
    expect(segments[0]!.first).toBe(0);
    expect(segments.at(-1)!.last).toBe(frames);
    segments.forEach((s, i) => {
      expect(s.last - s.first).toBeGreaterThan(0);
      expect(s.last - s.first).toBeLessThanOrEqual(151);
      if (i) expect(s.first).toBe(segments[i - 1]!.last);
    });
  }
});
