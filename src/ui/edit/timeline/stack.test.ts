import fc from 'fast-check';
import { MOST_ROWS, stackSpans } from './stack';

const spans = fc
  .array(fc.tuple(fc.nat(100), fc.integer({ min: 1, max: 30 })), { maxLength: 20 })
  .map((list) =>
    list
      .map(([start, length], i) => ({ id: `${i}`, start, end: start + length }))
      .sort((a, b) => a.start - b.start),
  );

test('spans of one row never lie over each other, and no more rows are made than are needed', () => {
  fc.assert(
    fc.property(spans, (list) => {
      const { rows, rowOf } = stackSpans(list);
      const at = (t: number) => list.filter(({ start, end }) => start <= t && t < end);
      const deepest = Math.max(1, ...list.map(({ start }) => at(start).length));
      expect(rows).toBe(Math.min(deepest, MOST_ROWS));
      if (deepest > MOST_ROWS) return;
      for (const { start } of list) {
        const taken = at(start).map(({ id }) => rowOf.get(id));
        expect(new Set(taken).size).toBe(taken.length);
      }
    }),
  );
});
