import fc from 'fast-check';
import { defaultsOf } from '../schema/setting';
import { byHand, movedInset, sizedInset, withPresenterBox, withScreenBox } from './by-hand';
import { builtInOf, LAYOUT_KINDS, LAYOUTS, USUAL_LAYOUT } from './built-in';
import type { Layout, PresenterBox } from './model';
import { PresenterPlacement } from './placement';
import { placePresenter } from './rectangles';

const FRAME = { width: 1920, height: 1080 };
const AREA = { x: 0, y: 0, width: 1280, height: 720 } as never;
const USUAL = defaultsOf(PresenterPlacement);
const boxOf = (placed: PresenterPlacement) =>
  placePresenter(USUAL_LAYOUT, { screen: true, presenter: true }, placed, AREA, FRAME)!.destination;

test('an inset goes to the corner that it is moved nearest to, and stays within the picture', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -1, max: 1, noNaN: true }),
      fc.double({ min: -1, max: 1, noNaN: true }),
      (x, y) => {
        const box = boxOf(USUAL);
        const moved = { ...box, x: box.x + x * FRAME.width, y: box.y + y * FRAME.height };
        const placed = { ...USUAL, ...movedInset(moved, FRAME) };
        const middle = moved.x + moved.width / 2 < FRAME.width / 2 ? 'left' : 'right';
        expect(placed.corner.endsWith(middle)).toBe(true);
        const { x: left, y: top, width, height } = boxOf(placed);
        expect(Math.min(left, top)).toBeGreaterThanOrEqual(0);
        expect(left + width).toBeLessThanOrEqual(FRAME.width);
        expect(top + height).toBeLessThanOrEqual(FRAME.height);
      },
    ),
  );
});

test('left where it is, it changes by no more than a step; sizes keep to their bounds', () => {
  const { corner, margin } = movedInset(boxOf(USUAL), FRAME);
  expect(corner).toBe(USUAL.corner);
  expect(Math.abs(margin - USUAL.margin)).toBeLessThanOrEqual(0.005);
  expect(sizedInset(0.4 * FRAME.height, FRAME)).toEqual({ size: 0.4 });
  expect(sizedInset(1, FRAME).size).toBe(0.05);
  expect(sizedInset(9999, FRAME).size).toBe(1);
});

describe('a layout by hand', () => {
  const THERE = { screen: true, presenter: true };
  const placeOf = (layout: Layout, placed = USUAL) =>
    placePresenter(layout, THERE, placed, AREA, FRAME)!;
  const shapes = fc.record({
    shape: fc.constantFrom('circle' as const, 'rectangle' as const, 'rounded' as const),
    size: fc.integer({ min: 10, max: 60 }).map((n) => n / 100),
    crop: fc.integer({ min: 30, max: 100 }).map((n) => n / 100),
    x: fc.double({ min: 0, max: 1, noNaN: true }),
  });

  test('begins with the presenter just as they are seen, of any shape and size', () => {
    fc.assert(
      fc.property(shapes, ({ shape, size, crop, x }) => {
        const placed = { ...USUAL, shape, size, crop, center: { x, y: 0.4 } };
        const layout = byHand(LAYOUTS.corner, placed, AREA, FRAME);
        const [before, after] = [placeOf(LAYOUTS.corner, placed), placeOf(layout, placed)];
        for (const side of ['x', 'y', 'width', 'height'] as const) {
          expect(Math.abs(after.destination[side] - before.destination[side])).toBeLessThanOrEqual(
            2,
          );
          // What is seen follows the two pixels that the grid may give or take.
          expect(Math.abs(after.source[side] - before.source[side])).toBeLessThan(12);
        }
        expect(after.mask?.shape).toBe(before.mask?.shape);
        expect(after.ring).toEqual(before.ring);
      }),
    );
  });

  test('brings back what a layout hides, and has a name of its own', () => {
    for (const kind of LAYOUT_KINDS) {
      const layout = byHand(LAYOUTS[kind], USUAL, AREA, FRAME);
      expect(layout.name).toBe('By hand');
      expect(layout.screen).not.toBeNull();
      const { box } = layout.presenter as PresenterBox;
      expect(box.width * box.height).toBeLessThan(0.5);
      expect(builtInOf(layout)).toBeNull();
    }
  });

  test('a built-in layout that was changed loses its name, one of a person’s own keeps it', () => {
    const box = { x: 0, y: 0, width: 0.5, height: 0.5 };
    expect(withScreenBox(LAYOUTS.side, box).name).toBe('By hand');
    expect(withScreenBox({ ...LAYOUTS.side, name: 'Desk' }, box).name).toBe('Desk');
    expect(withPresenterBox(LAYOUTS.screen, null)).toEqual(LAYOUTS.screen);
    expect(withScreenBox(LAYOUTS.side, null).screen).toBeNull();
  });
});
