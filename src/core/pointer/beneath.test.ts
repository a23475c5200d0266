import fc from 'fast-check';
import { meet, type Rect } from '../scale/rect';
import type { PointerTrack } from '../telemetry/pointer-track';
import type { ScreenActivity } from '../vision/screen-activity';
import { pointerBox, uncovered } from './beneath';

const SIZE = { width: 1000, height: 600 };
const LENGTH = 12_000;
const ALL = { from: 0, to: LENGTH };
const REACH = { left: 2, top: 2, right: 20, bottom: 30 };

const trackOf = (
  samples: PointerTrack['samples'],
  hidden: PointerTrack['hidden'] = [],
): PointerTrack => ({ format: 'vistum-pointer', version: 2, ...SIZE, samples, hidden, events: [] });

const change = (start: number, end: number, box: Rect): ScreenActivity => ({
  ...{ kind: 'change', start, end, box, scrolled: 0 },
});

test('what a pointer that goes away covered is known, before it went and after', () => {
  // Two seconds at the left, then at the right.
  const track = trackOf([
    [0, 100, 100],
    [2000, 100, 100],
    [2100, 800, 400],
  ]);
  const found = uncovered(track, REACH, { activities: [], length: LENGTH }, ALL);
  const told = found.reduce((sum, { from, to }) => sum + to - from, 0);
  expect(told).toBeGreaterThan(0.97 * LENGTH);
  for (const { from, to, by } of found) {
    if (to <= 2000) expect(by).toBeGreaterThan(2000);
    if (from >= 2100) expect(by).toBeLessThan(2100);
  }
  // A pointer that rests all along has never shown what is beneath.
  expect(
    uncovered(trackOf([[0, 100, 100]]), REACH, { activities: [], length: LENGTH }, ALL),
  ).toEqual([]);
});

test('a pointer that flits past between two pictures covers where it turned', () => {
  // To the right and back within 40 ms, then there for good.
  const track = trackOf([
    [649, 0, 0],
    [669, 817, 0],
    [689, 0, 0],
    [5000, 0, 0],
    [5020, 817, 0],
  ]);
  const found = uncovered(track, REACH, { activities: [], length: LENGTH }, ALL);
  const then = found.find(({ from, to }) => from <= 669 && 669 < to);
  expect(
    then && meet(pointerBox(track, REACH, then.by), pointerBox(track, REACH, 669)),
  ).toBeFalsy();
  // Just before and after it is known.
  expect(found.some(({ to }) => to > 500 && to <= 669)).toBe(true);
  expect(found.some(({ from }) => from > 669 && from < 1000)).toBe(true);
});

test('nothing is taken from beyond a change of that place', () => {
  const track = trackOf([
    [0, 100, 100],
    [5000, 100, 100],
    [5100, 800, 400],
  ]);
  const there = { x: 80, y: 90, width: 200, height: 60 };
  // The place changes while the pointer is on it: only what follows the change is known by what
  // comes after.
  const found = uncovered(
    track,
    REACH,
    { activities: [change(3000, 3000, there)], length: LENGTH },
    ALL,
  );
  const before = found.filter(({ to }) => to <= 5000);
  expect(Math.min(...before.map(({ from }) => from))).toBeGreaterThan(3000);
  // Elsewhere it does not matter.
  const far = uncovered(
    track,
    REACH,
    { activities: [change(3000, 3000, { ...there, x: 600 })], length: LENGTH },
    ALL,
  );
  expect(far[0]!.from).toBe(0);
});

test('a picture that is taken shows the place without the pointer, and nothing happened there since', () => {
  const spot = fc.record({
    x: fc.integer({ min: 0, max: 999 }),
    y: fc.integer({ min: 0, max: 599 }),
  });
  const paths = fc.array(fc.tuple(fc.integer({ min: 20, max: 900 }), spot), {
    ...{ minLength: 1, maxLength: 30 },
  });
  const changes = fc.array(
    fc.record({
      start: fc.integer({ min: 0, max: LENGTH }),
      lasts: fc.integer({ min: 0, max: 1500 }),
      at: spot,
      size: fc.integer({ min: 8, max: 300 }),
    }),
    { maxLength: 12 },
  );
  fc.assert(
    fc.property(paths, changes, fc.integer({ min: 0, max: LENGTH }), (path, made, gone) => {
      let ms = 0;
      const samples = path.map(([after, { x, y }]) => [(ms += after), x, y] as const);
      const track = trackOf(samples, [[gone, gone + 700]]);
      const activities = made.map(({ start, lasts, at, size }) =>
        change(start, start + lasts, { ...at, width: size, height: size }),
      );
      let last = 0;
      for (const { from, to, by } of uncovered(track, REACH, { activities, length: LENGTH }, ALL)) {
        expect(from).toBeGreaterThanOrEqual(last);
        expect(to).toBeGreaterThan(from);
        last = to;
        expect(by >= 0 && by < LENGTH).toBe(true);
        const hiddenThen = by >= gone && by < gone + 700;
        const then = pointerBox(track, REACH, by);
        // Asked of jest once: there are tens of thousands of times.
        const wrong: number[] = [];
        for (let at = from; at < to; at += 17) {
          const box = pointerBox(track, REACH, at);
          const changed = activities.some(
            ({ start, end, box: there }) =>
              end >= Math.min(by, at) && start <= Math.max(by, at) && meet(there, box),
          );
          if (changed || (!hiddenThen && meet(box, then))) wrong.push(at);
        }
        expect(wrong).toEqual([]);
      }
    }),
    { numRuns: 300 },
  );
});

test('places that changed tell more than what was united of them', () => {
  const track = trackOf([
    [0, 100, 100],
    [5000, 100, 100],
    [5100, 800, 400],
  ]);
  // Typed far to the right of the pointer, in one line with it.
  const typed = change(1000, 4500, { x: 60, y: 90, width: 900, height: 60 });
  const told = { activities: [typed], length: LENGTH };
  const before = (found: ReturnType<typeof uncovered>) =>
    found.reduce((sum, { from, to }) => sum + Math.max(0, Math.min(to, 5000) - from), 0);
  expect(before(uncovered(track, REACH, told, ALL))).toBeLessThan(1000);
  const places = [1000, 2000, 4500].map((ms) => [ms, ms, 600, 90, 40, 60] as const);
  expect(before(uncovered(track, REACH, { ...told, changes: places }, ALL))).toBeGreaterThan(4900);
});

test('a time at which the pointer was not found is not taken for one without it', () => {
  const rests = trackOf([[0, 100, 100]], [[4000, 6000]]);
  const none = { activities: [], length: LENGTH };
  expect(uncovered(rests, REACH, none, ALL).length).toBeGreaterThan(0);
  expect(uncovered({ ...rests, source: 'found' }, REACH, none, ALL)).toEqual([]);
});
