import fc from 'fast-check';
import { isOf } from '../schema/check-plain';
import {
  curveThrough,
  inDirectionsOf,
  MOST_POINTS,
  onTheWay,
  outset,
  OwnShape,
  PEBBLE,
  shapeBetween,
  withoutPoint,
  withPoint,
  withPointAt,
} from './own-shape';

const BOX = { width: 400, height: 300 };
const share = fc.double({ min: 0, max: 1, noNaN: true });
const shapes = fc.array(fc.record({ x: share, y: share }), { minLength: 3, maxLength: 20 });

test('a curve goes through all of its points, and never leaves its box', () => {
  fc.assert(
    fc.property(shapes, (points) => {
      const curve = curveThrough(points, BOX);
      points.forEach(({ x, y }, i) => {
        expect(curve[i * 10]!.x).toBeCloseTo(x * BOX.width, 6);
        expect(curve[i * 10]!.y).toBeCloseTo(y * BOX.height, 6);
      });
      for (const { x, y } of curve)
        expect(x >= 0 && x <= BOX.width && y >= 0 && y <= BOX.height).toBe(true);
    }),
  );
});

test('four points of a circle give what is nearly one', () => {
  const circle = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => ({
    x: 0.5 + 0.45 * Math.cos((i * Math.PI) / 4),
    y: 0.5 + 0.45 * Math.sin((i * Math.PI) / 4),
  }));
  for (const { x, y } of curveThrough(circle, { width: 1, height: 1 }))
    expect(Math.hypot(x - 0.5, y - 0.5)).toBeCloseTo(0.45, 2);
});

test('what lies further out has the same distance all around, whichever way the corners go', () => {
  const circle = Array.from({ length: 90 }, (_, i) => ({
    x: 200 + 100 * Math.cos((i * Math.PI) / 45),
    y: 200 + 100 * Math.sin((i * Math.PI) / 45),
  }));
  for (const corners of [circle, [...circle].reverse()])
    for (const { x, y } of outset(corners, 12))
      expect(Math.hypot(x - 200, y - 200)).toBeCloseTo(112, 6);
  expect(outset(circle, 0)).toEqual(circle);
});

test('a point more lies on the curve, a point less leaves the others, and there are never too few', () => {
  const more = withPoint(PEBBLE, 7);
  expect(more).toHaveLength(PEBBLE.length + 1);
  expect(withoutPoint(more, 8)).toEqual(PEBBLE);
  expect(withoutPoint(PEBBLE.slice(0, 3), 1)).toHaveLength(3);
  let many = PEBBLE;
  for (let i = 0; i < 100; i++) many = withPoint(many, i % many.length);
  expect(many).toHaveLength(MOST_POINTS);
  for (const one of [PEBBLE, more, many, withPointAt(PEBBLE, 2, { x: -4, y: 9 })])
    expect(isOf(OwnShape, one)).toBe(true);
  expect(withPointAt(PEBBLE, 2, { x: -4, y: 9 })[2]).toEqual({ x: 0, y: 1 });
});

test('a usual outline is met in the directions of an own one', () => {
  const points = onTheWay(PEBBLE);
  expect(points).toHaveLength(40);
  for (const { x, y } of inDirectionsOf(points, { power: 2 }))
    expect(Math.hypot(x - 0.5, y - 0.5)).toBeCloseTo(0.5, 9);
  for (const { x, y } of inDirectionsOf(points, { power: 4 }))
    expect((2 * Math.abs(x - 0.5)) ** 4 + (2 * Math.abs(y - 0.5)) ** 4).toBeCloseTo(1, 9);
  for (const rounding of [0, 0.14, 0.5])
    inDirectionsOf(points, { rounding }).forEach(({ x, y }, i) => {
      const [qx, qy] = [x, y].map((n) => Math.abs(n - 0.5) - 0.5 + rounding) as [number, number];
      const outside = Math.hypot(Math.max(0, qx), Math.max(0, qy));
      expect(outside + Math.min(0, Math.max(qx, qy))).toBeCloseTo(rounding, 9);
      // In the same direction.
      const at = points[i]!;
      expect((x - 0.5) * (at.y - 0.5)).toBeCloseTo((y - 0.5) * (at.x - 0.5), 9);
    });
});

test('one goes over into another', () => {
  const turned = PEBBLE.map(({ x, y }) => ({ x: 1 - x, y: 1 - y }));
  expect(shapeBetween(PEBBLE, turned, 0)).toEqual(PEBBLE);
  expect(shapeBetween(PEBBLE, turned, 0.5)[0]).toEqual({ x: 0.5, y: 0.5 });
  const fewer = withoutPoint(PEBBLE, 0);
  expect(shapeBetween(PEBBLE, fewer, 0.4)).toBe(PEBBLE);
  expect(shapeBetween(PEBBLE, fewer, 0.6)).toBe(fewer);
});
