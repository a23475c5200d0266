import fc from 'fast-check';
import { countFront } from './bisect';

test('as many are counted as a walk from the front would, with few looks', () => {
  fc.assert(
    fc.property(fc.array(fc.integer()), fc.integer(), (numbers, limit) => {
      const sorted = numbers.sort((a, b) => a - b);
      let looks = 0;
      const count = countFront(sorted, (n) => (looks++, n <= limit));
      expect(count).toBe(sorted.filter((n) => n <= limit).length);
      expect(looks).toBeLessThanOrEqual(Math.ceil(Math.log2(sorted.length + 1)) + 1);
    }),
  );
});
