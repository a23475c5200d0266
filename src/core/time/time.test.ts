import fc from 'fast-check';
import {
  frameAt,
  frameDuration,
  framesPerSecond,
  frameStart,
  rateFromNumber,
  secondsToTicks,
  snapToFrame,
  TICKS_PER_SECOND,
} from './ticks';
import { formatClock, formatTimecode, parseTimecode } from './timecode';

const RATES = [24, 25, 30, 50, 60, 120]
  .map((num) => ({ num, den: 1 }))
  .concat([24, 30, 60].map((n) => ({ num: n * 1000, den: 1001 })));

test('a tick divides every usual frame and sample rate', () => {
  for (const rate of RATES) expect((TICKS_PER_SECOND * rate.den) % rate.num).toBe(0);
  for (const samples of [8000, 22050, 44100, 48000, 96000])
    expect(TICKS_PER_SECOND % samples).toBe(0);
});

test('frames begin where they say and each instant belongs to one frame', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...RATES),
      fc.nat(1_000_000),
      fc.double({ min: 0, max: 0.999, noNaN: true }),
      (rate, index, share) => {
        const start = frameStart(index, rate);
        expect(frameAt(start, rate)).toBe(index);
        expect(frameAt(start + Math.floor(share * frameDuration(rate)), rate)).toBe(index);
        expect(snapToFrame(start, rate)).toBe(start);
      },
    ),
  );
});

test('rates are recognised as exact fractions', () => {
  expect(rateFromNumber(29.97)).toEqual({ num: 30000, den: 1001 });
  expect(rateFromNumber(23.976)).toEqual({ num: 24000, den: 1001 });
  expect(rateFromNumber(25)).toEqual({ num: 25, den: 1 });
  expect(framesPerSecond(rateFromNumber(12.345))).toBeCloseTo(12.345, 3);
  expect(() => rateFromNumber(0)).toThrow(RangeError);
  expect(() => rateFromNumber(NaN)).toThrow(RangeError);
});

test('timecode reads back what it writes', () => {
  const rate = { num: 30, den: 1 };
  fc.assert(
    fc.property(fc.nat(30 * 3600 * 20), (index) =>
      expect(parseTimecode(formatTimecode(frameStart(index, rate), rate), rate)).toBe(
        frameStart(index, rate),
      ),
    ),
  );
  expect(formatTimecode(secondsToTicks(3723.5), rate)).toBe('01:02:03:15');
  expect(parseTimecode('1:05', rate)).toBe(secondsToTicks(65));
  expect(parseTimecode('12,5', rate)).toBe(secondsToTicks(12.5));
  for (const nonsense of ['', 'abc', '1:2:3:4:5', '-3', '1::2'])
    expect(parseTimecode(nonsense, rate)).toBeNull();
  expect(formatClock(75.4)).toBe('1:15');
  expect(formatClock(3661)).toBe('1:01:01');
});
