import fc from 'fast-check';
import { defaultsOf } from '../schema/setting';
import { movedInset, sizedInset } from './by-hand';
import { USUAL_LAYOUT } from './built-in';
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
