import fc from 'fast-check';
import { isOf } from '../schema/check-plain';
import { FollowPath, isOfAnother, shiftAt, shiftsAround, timeInSight } from './follow-path';

const path: FollowPath = {
  ...{ ms: 100, from: 0, to: 2000, step: 40, of: { width: 640, height: 360, length: 2000 } },
  runs: [
    {
      ...{ from: 0, to: 800 },
      places: [
        [0, 0, 40, 1, 1],
        [80, 0, 20, 1, 1],
        [100, 0, 0, 1, 1],
        [400, 0, 0, 1, 0],
      ],
    },
    { from: 1200, to: 2000, places: [[1200, -30, 5, 1.5, 1]] },
  ],
};

test('content is at the last place that began, never between two, and nowhere when it is gone', () => {
  expect(isOf(FollowPath, path)).toBe(true);
  expect(shiftAt(path, 79)).toMatchObject({ dy: 40, sure: true });
  // Times of pictures are rounded.
  expect(shiftAt(path, 79.9)).toMatchObject({ dy: 20 });
  expect(shiftAt(path, 500)).toMatchObject({ dy: 0, sure: false });
  expect(shiftAt(path, 1000)).toBeNull();
  expect(shiftAt(path, 1500)).toEqual({ dx: -30, dy: 5, scale: 1.5, sure: true });
});

test('before and after what was looked through it is where it was first and last', () => {
  expect(shiftAt({ ...path, from: 40 }, 0)).toEqual(shiftAt(path, 40));
  expect(shiftAt(path, 9000)).toMatchObject({ scale: 1.5 });
  expect(shiftsAround(path, 9000)).toHaveLength(1);
});

test('what may be around a time has where it is then, and all places of a picture before and after', () => {
  fc.assert(
    fc.property(fc.double({ min: -100, max: 2500, noNaN: true }), (ms) => {
      const around = shiftsAround(path, ms);
      for (const near of [ms - 40, ms, ms + 40]) {
        const shift = near >= 0 && near < 2000 ? shiftAt(path, near) : null;
        if (shift) expect(around).toContainEqual(shift);
      }
    }),
  );
  expect(shiftsAround(path, 90).map(({ dy }) => dy)).toEqual([40, 20, 0]);
  expect(shiftsAround(path, 1000)).toEqual([]);
});

test('a path tells how long its content is in sight, and whether its recording was replaced', () => {
  expect(timeInSight(path)).toBe(1600);
  const now = { width: 640, height: 360, length: 2010 };
  expect(isOfAnother(path, now)).toBe(false);
  expect(isOfAnother(path, { ...now, length: 2100 })).toBe(true);
  expect(isOfAnother(path, { ...now, height: 480 })).toBe(true);
});
