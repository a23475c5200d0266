import fc from 'fast-check';
import { restOf } from './snap-lines';

const FRAME = { width: 1600, height: 900 };
const share = fc.double({ min: 0, max: 0.9, noNaN: true });
const box = fc.record({ x: share, y: share, width: share, height: share });

test('a box that is brought to rest needs to go no further', () => {
  fc.assert(
    fc.property(box, fc.array(box, { maxLength: 3 }), (moved, others) => {
      const { dx, dy, lines } = restOf(moved, FRAME, 0.02, others);
      expect(Math.abs(dx)).toBeLessThanOrEqual(0.02);
      expect(Math.abs(dy)).toBeLessThanOrEqual((0.02 * 16) / 9);
      if (!lines.x.length) expect(dx).toBe(0);
      const rested = { ...moved, x: moved.x + dx, y: moved.y + dy };
      const again = restOf(rested, FRAME, 0.02, others);
      expect(again.dx).toBeCloseTo(0, 9);
      expect(again.dy).toBeCloseTo(0, 9);
    }),
  );
});

test('edges, thirds, the middle and other boxes hold it; further away nothing does', () => {
  const at = (x: number, width = 0, others: Parameters<typeof restOf>[3] = []) =>
    restOf({ x, y: 0.27, width, height: 0 }, FRAME, 0.01, others);
  expect(at(0.328).dx).toBeCloseTo(1 / 3 - 0.328, 9);
  expect(at(0.395, 0.2).lines.x).toEqual([0.5]);
  expect(at(0.42).lines).toEqual({ x: [], y: [] });
  expect(at(0.42, 0, [{ x: 0.425, y: 0, width: 0.2, height: 0.1 }]).dx).toBeCloseTo(0.005, 9);
});
