import fc from 'fast-check';
import { arrowHead, arrowPath, bendTowards, COURSES, curveTop } from './arrow-path';

const place = fc.record({
  x: fc.integer({ min: -900, max: 900 }),
  y: fc.integer({ min: -900, max: 900 }),
});
const ends = fc.tuple(place, place).filter(([a, b]) => Math.hypot(a.x - b.x, a.y - b.y) > 5);

test('every way goes from the tail to the tip', () => {
  fc.assert(
    fc.property(ends, fc.double({ min: -1, max: 1, noNaN: true }), ([from, to], bend) => {
      for (const course of COURSES) {
        const path = arrowPath(from, to, course, bend);
        expect(path[0]).toEqual(from);
        expect(path.at(-1)).toEqual(to);
      }
    }),
  );
});

test('a curve passes its top, and the bend is read back from there', () => {
  fc.assert(
    fc.property(ends, fc.double({ min: -1, max: 1, noNaN: true }), ([from, to], bend) => {
      const top = curveTop(from, to, bend);
      const middle = arrowPath(from, to, 'curved', bend)[16]!;
      expect(middle.x).toBeCloseTo(top.x, 6);
      expect(middle.y).toBeCloseTo(top.y, 6);
      expect(bendTowards(from, to, top)).toBeCloseTo(bend, 6);
    }),
  );
  expect(bendTowards({ x: 3, y: 3 }, { x: 3, y: 3 }, { x: 9, y: 9 })).toBe(0);
});

test('looking right, a curve with a bend above 0 goes above the straight way', () => {
  expect(curveTop({ x: 0, y: 0 }, { x: 100, y: 0 }, 0.2)).toEqual({ x: 50, y: -20 });
});

test('round a corner the longer piece comes first, and the pieces meet at a right angle', () => {
  const from = { x: 0, y: 0 };
  expect(arrowPath(from, { x: 90, y: 40 }, 'elbow', 0)[1]).toEqual({ x: 90, y: 0 });
  expect(arrowPath(from, { x: 40, y: -90 }, 'elbow', 0)[1]).toEqual({ x: 0, y: -90 });
});

test('a head stands about the tip, looks where the line comes from, and is no longer than it', () => {
  const path = [
    { x: 0, y: 0 },
    { x: 100, y: 0 },
  ];
  const [left, tip, right] = arrowHead(path, 4)!;
  expect(tip).toEqual({ x: 100, y: 0 });
  expect(left!.y).toBeCloseTo(-right!.y, 9);
  expect(left!.x).toBeLessThan(100);
  const short = arrowHead([{ x: 98, y: 0 }, tip!], 4)!;
  expect(Math.hypot(short[0]!.x - 100, short[0]!.y)).toBeCloseTo(2, 9);
  expect(arrowHead([tip!], 4)).toBeNull();
  expect(arrowHead([tip!, tip!], 4)).toBeNull();
});
