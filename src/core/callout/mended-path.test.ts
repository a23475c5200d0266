import fc from 'fast-check';
import { isOf } from '../schema/check-plain';
import { FollowPath, shiftAt } from './follow-path';
import { hiddenPath, movedPath, restAround, shownPath } from './mended-path';

const path: FollowPath = {
  ...{ ms: 100, from: 0, to: 2000, step: 40, of: { width: 640, height: 360, length: 2000 } },
  runs: [
    {
      ...{ from: 0, to: 800 },
      places: [
        [0, 0, 40, 1, 1],
        [80, 0, 20, 1, 1],
        [120, 0, 0, 1, 1],
        [400, 0, 0, 1, 0],
      ],
    },
    { from: 1200, to: 1600, places: [[1200, -30, 5, 1.5, 1]] },
  ],
};

test('a stretch is as long as content rests, or is not seen', () => {
  expect(restAround(path, 90)).toEqual({ from: 80, to: 120 });
  expect(restAround(path, 500)).toEqual({ from: 400, to: 800 });
  expect(restAround(path, 1000)).toEqual({ from: 800, to: 1200 });
  expect(restAround(path, 1700)).toEqual({ from: 1600, to: 2000 });
  expect(restAround(path, 9000)).toEqual({ from: 1600, to: 2000 });
});

const stretches = fc
  .tuple(fc.nat(2000), fc.integer({ min: 1, max: 2000 }))
  .map(([from, length]) => ({ from, to: Math.min(2001, from + length) }));
const times = fc.nat(1998);

test('what is mended holds within its stretch, and nothing changes outside of it', () => {
  fc.assert(
    fc.property(
      ...([stretches, times, fc.integer(), fc.integer()] as const),
      (stretch, ms, dx, dy) => {
        const by = { dx: dx % 1000, dy: dy % 1000 };
        const was = shiftAt(path, ms);
        // A time stands for what is shown half a millisecond later.
        const inside = ms + 0.5 >= stretch.from && ms + 0.5 < stretch.to;
        const moved = movedPath(path, stretch, by);
        const [hidden, shown] = [hiddenPath(path, stretch), shownPath(path, stretch)];
        for (const one of [moved, hidden, shown]) expect(isOf(FollowPath, one)).toBe(true);
        expect(shiftAt(moved, ms)).toEqual(
          was && inside ? { ...was, dx: was.dx + by.dx, dy: was.dy + by.dy, sure: true } : was,
        );
        expect(shiftAt(hidden, ms)).toEqual(inside ? null : was);
        if (inside) expect(shiftAt(shown, ms)).toMatchObject({ sure: true });
        else expect(shiftAt(shown, ms)).toEqual(was);
      },
    ),
  );
});

test('content that is said to be there is where it was last, or else where it comes to', () => {
  expect(shiftAt(shownPath(path, { from: 800, to: 1200 }), 1000)).toMatchObject({
    dy: 0,
    scale: 1,
  });
  const late = { ...path, runs: path.runs.slice(1) };
  expect(shiftAt(shownPath(late, { from: 0, to: 300 }), 100)).toMatchObject({ scale: 1.5 });
  expect(shiftAt(shownPath({ ...path, runs: [] }, { from: 0, to: 300 }), 100)).toEqual({
    ...{ dx: 0, dy: 0, scale: 1, sure: true },
  });
});

test('moving there and back is what it was, in as many places', () => {
  const there = movedPath(path, { from: 100, to: 130 }, { dx: 5, dy: -3 });
  expect(there.runs).toHaveLength(2);
  expect(there.runs[0]!.places).toHaveLength(6);
  expect(movedPath(there, { from: 0, to: 2000 }, { dx: 0, dy: 0 }).runs).toHaveLength(2);
});
