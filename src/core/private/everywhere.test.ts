import { shiftAt, shiftsAround, timeInSight, type FollowPath } from '../callout/follow-path';
import { withStretches } from './everywhere';

const marked = { x: 100, y: 300, width: 200, height: 16 };
const path: FollowPath = {
  ...{ ms: 500, from: 0, to: 9000, step: 40, of: { width: 1920, height: 1080, length: 9000 } },
  runs: [
    { from: 0, to: 2000, places: [[0, 0, 0, 1, 1]] },
    { from: 4000, to: 6000, places: [[4000, 0, -86, 1, 1]] },
  ],
};
const stretch = (from: number, to: number, y: number, width = 200) => ({
  ...{ from, to, rect: { x: 100, y, width, height: 16 } },
});

test('what the path knows is not added, within what reading is off by', () => {
  const all = [stretch(0, 2000, 300), stretch(4000, 6000, 217)];
  expect(withStretches(path, marked, all)).toBe(path);
});

test('where it was read elsewhere, or was lost, both places are covered', () => {
  const found = withStretches(path, marked, [stretch(4200, 5800, 430), stretch(7000, 12_000, 100)]);
  expect(shiftsAround(found, 5000).map(({ dy }) => dy)).toEqual([130, -86]);
  expect(shiftAt(found, 5000)).toMatchObject({ dy: -86, sure: true });
  expect(shiftsAround(found, 8000)).toEqual([{ dx: 0, dy: -200, scale: 1, sure: false }]);
  expect(found.runs.every(({ to }) => to <= path.to)).toBe(true);
  expect(timeInSight(found)).toBe(6000);
});

test('a place that is magnified lies over it whole', () => {
  const [shift] = shiftsAround(withStretches(path, marked, [stretch(2500, 3500, 500, 250)]), 3000);
  expect(shift!.scale).toBe(1.25);
  expect(100 * shift!.scale + shift!.dx).toBe(100);
});
