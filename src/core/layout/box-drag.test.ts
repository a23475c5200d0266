import fc from 'fast-check';
import { dragBox, type BoxDrag, type Grip } from './box-drag';

const FRAME = { width: 1920, height: 1080 };
const FREE: BoxDrag = { frame: FRAME, keepShape: false, aboutMiddle: false, reach: 0, others: [] };
const BOX = { x: 0.2, y: 0.3, width: 0.4, height: 0.4 };
const GRIPS: readonly Grip[] = ['all', 'top-left', 'top-right', 'bottom-left', 'bottom-right'];

const boxes = fc
  .record({
    width: fc.double({ min: 0.05, max: 1, noNaN: true }),
    height: fc.double({ min: 0.05, max: 1, noNaN: true }),
    across: fc.double({ min: 0, max: 1, noNaN: true }),
    down: fc.double({ min: 0, max: 1, noNaN: true }),
  })
  .map(({ width, height, across, down }) => ({
    ...{ width, height, x: across * (1 - width), y: down * (1 - height) },
  }));
const ways = fc.double({ min: -1.5, max: 1.5, noNaN: true });
const manners = fc.record({
  keepShape: fc.boolean(),
  aboutMiddle: fc.boolean(),
  reach: fc.constantFrom(0, 0.01, 0.05),
  others: fc.array(boxes, { maxLength: 2 }),
});

test('wherever it is dragged, a box stays within the picture and keeps a size', () => {
  fc.assert(
    fc.property(boxes, fc.constantFrom(...GRIPS), ways, ways, manners, (box, grip, dx, dy, how) => {
      const { box: now } = dragBox(box, grip, dx, dy, { frame: FRAME, ...how });
      expect(now.x).toBeGreaterThanOrEqual(0);
      expect(now.y).toBeGreaterThanOrEqual(0);
      expect(now.x + now.width).toBeLessThanOrEqual(1 + 1e-9);
      expect(now.y + now.height).toBeLessThanOrEqual(1 + 1e-9);
      expect(Math.min(now.width, now.height)).toBeGreaterThan(0.049);
    }),
  );
});

test('moving keeps the size; sizing keeps the corner across, or the middle', () => {
  fc.assert(
    fc.property(boxes, ways, ways, fc.boolean(), (box, dx, dy, aboutMiddle) => {
      const moved = dragBox(box, 'all', dx, dy, FREE).box;
      expect(moved.width).toBeCloseTo(box.width, 5);
      expect(moved.height).toBeCloseTo(box.height, 5);
      const now = dragBox(box, 'top-left', dx, dy, { ...FREE, aboutMiddle }).box;
      const part = aboutMiddle ? 0.5 : 1;
      expect(now.x + now.width * part).toBeCloseTo(box.x + box.width * part, 5);
      expect(now.y + now.height * part).toBeCloseTo(box.y + box.height * part, 5);
    }),
  );
});

test('a shape that is kept stays the same whichever corner is pulled', () => {
  fc.assert(
    fc.property(boxes, fc.constantFrom(...GRIPS), ways, ways, (box, grip, dx, dy) => {
      const { box: now } = dragBox(box, grip, dx, dy, { ...FREE, keepShape: true });
      expect(now.width / now.height / (box.width / box.height)).toBeCloseTo(1, 3);
    }),
  );
});

test('edges and middles come to rest on thirds, safe lines and the edges of others', () => {
  const near: BoxDrag = { ...FREE, reach: 0.01 };
  // Its left edge comes within reach of a third, its top of the upper safe line.
  const moved = dragBox(BOX, 'all', 0.128, -0.26, near);
  expect(moved.box.x).toBeCloseTo(1 / 3, 5);
  expect(moved.box.y).toBeCloseTo(0.05, 5);
  expect(moved.lines).toEqual({ x: [1 / 3], y: [0.05] });
  // Its middle to the middle.
  expect(dragBox(BOX, 'all', 0.104, 0, near).lines.x).toEqual([0.5]);
  // Sized to the edge of another.
  const other = { x: 0.7, y: 0.1, width: 0.2, height: 0.1 };
  const grown = dragBox(BOX, 'bottom-right', 0.092, 0.15, { ...near, others: [other] });
  expect(grown.box.x + grown.box.width).toBeCloseTo(0.7, 5);
  expect(grown.lines.x).toEqual([0.7]);
  // Nowhere without reach.
  expect(dragBox(BOX, 'all', 0.128, -0.26, FREE).lines).toEqual({ x: [], y: [] });
});
