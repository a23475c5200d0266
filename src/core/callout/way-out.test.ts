import fc from 'fast-check';
import { meet } from '../scale/rect';
import { wayOut } from './way-out';

const PICTURE = { width: 1920, height: 1080 };
const rects = (most: number) =>
  fc
    .tuple(
      fc.nat(1500),
      fc.nat(800),
      fc.integer({ min: 1, max: most }),
      fc.integer({ min: 1, max: most }),
    )
    .map(([x, y, width, height]) => ({
      ...{ x, y },
      ...{ width: Math.min(width, 1920 - x), height: Math.min(height, 1080 - y) },
    }));

test('whatever meets another comes clear of it within the picture, by the shortest way', () => {
  fc.assert(
    fc.property(rects(400), rects(500), (place, other) => {
      const way = wayOut(place, other, PICTURE);
      if (!meet(place, other)) return expect(way).toBeNull();
      if (!way) return;
      const moved = { ...place, x: place.x + way.dx, y: place.y + way.dy };
      expect(meet(moved, other)).toBe(false);
      expect(moved.x >= 0 && moved.x + moved.width <= 1920).toBe(true);
      expect(moved.y >= 0 && moved.y + moved.height <= 1080).toBe(true);
      // A step less, and they would meet.
      const [dx, dy] = [Math.sign(way.dx), Math.sign(way.dy)];
      expect(meet({ ...moved, x: moved.x - dx, y: moved.y - dy }, other)).toBe(true);
    }),
  );
});

test('there is no way out from what fills the picture', () => {
  expect(
    wayOut({ x: 10, y: 10, width: 50, height: 50 }, { x: 0, y: 0, ...PICTURE }, PICTURE),
  ).toBeNull();
});

test('a note in a corner goes to the nearer side', () => {
  const presenter = { x: 1500, y: 700, width: 380, height: 340 };
  expect(wayOut({ x: 1450, y: 800, width: 100, height: 60 }, presenter, PICTURE)).toEqual({
    ...{ dx: -50, dy: 0 },
  });
});
