import fc from 'fast-check';
import { ALIGNMENTS, arrange, SPREADS } from './align';

const size = fc.integer({ min: 1, max: 400 });
const place = fc.integer({ min: -900, max: 900 });
const boxes = fc.array(fc.record({ x: place, y: place, width: size, height: size }), {
  minLength: 3,
  maxLength: 8,
});
type Boxes = { x: number; y: number; width: number; height: number }[];
const moved = (all: Boxes, ways: ReturnType<typeof arrange>): Boxes =>
  all.map((box, i) => ({ ...box, x: box.x + ways[i]!.dx, y: box.y + ways[i]!.dy }));

test('edges and middles are brought in line, and what is in line stays', () => {
  fc.assert(
    fc.property(boxes, fc.constantFrom(...ALIGNMENTS), (all, how) => {
      const after = moved(all, arrange(all, how));
      const places = after.map(({ x, y, width, height }) => {
        const of = { left: x, middle: x + width / 2, right: x + width };
        return { ...of, top: y, center: y + height / 2, bottom: y + height }[how];
      });
      for (const at of places) expect(at).toBeCloseTo(places[0]!, 9);
      for (const { dx, dy } of arrange(after, how))
        expect(Math.abs(dx) + Math.abs(dy)).toBeLessThan(1e-6);
    }),
  );
});

test('the room between them is the same, the outermost stay, and their order is kept', () => {
  fc.assert(
    fc.property(boxes, fc.constantFrom(...SPREADS), (all, how) => {
      const [start, side] =
        how === 'across' ? (['x', 'width'] as const) : (['y', 'height'] as const);
      const ways = arrange(all, how);
      const order = all
        .map((box, i) => ({ before: box[start] + box[side] / 2, box: moved(all, ways)[i]! }))
        .sort((a, b) => a.before - b.before)
        .map(({ box }) => box);
      const gaps = order.slice(1).map((box, i) => box[start] - order[i]![start] - order[i]![side]);
      for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0]!, 6);
      for (const { dx, dy } of ways) expect(how === 'across' ? dy : dx).toBe(0);
    }),
  );
});

test('it takes two to be in line, and three for room between', () => {
  const box = { x: 0, y: 0, width: 5, height: 5 };
  expect(arrange([box], 'left')).toEqual([]);
  expect(arrange([box, box], 'across')).toEqual([]);
});
