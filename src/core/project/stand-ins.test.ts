import fc from 'fast-check';
import { PIECE_SECONDS, pieceAt, thumbCount } from './stand-ins';

const rate = fc.constantFrom(
  { num: 30, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 24000, den: 1001 },
  { num: 15, den: 1 },
);

test('each picture of a recording lies in one piece, as many pictures in as it should', () => {
  fc.assert(
    fc.property(rate, fc.nat(40_000), ({ num, den }, frame) => {
      const seconds = (frame * den) / num;
      const { index, seconds: within } = pieceAt(seconds, { num, den });
      // By counting: pieces begin with the first picture that is not before their time.
      const first = Math.ceil((index * PIECE_SECONDS * num) / den - 1e-6);
      const next = Math.ceil(((index + 1) * PIECE_SECONDS * num) / den - 1e-6);
      expect(frame).toBeGreaterThanOrEqual(first);
      expect(frame).toBeLessThan(next);
      expect(within).toBeCloseTo(((frame - first) * den) / num, 6);
    }),
  );
});

test('a strip has a view every two seconds, and never more than 120', () => {
  expect([0, 1, 2, 3, 240, 36_000].map(thumbCount)).toEqual([1, 1, 1, 2, 120, 120]);
});
