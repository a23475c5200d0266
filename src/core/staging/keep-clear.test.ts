import fc from 'fast-check';
import { counter, emptyProject, facts } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { keepClear as setClear, setLayout } from '../edit/spans';
import { insetAt } from '../framing/inset';
import { LAYOUTS } from '../layout/built-in';
import { KEEPS_CLEAR } from '../layout/clearing';
import type { Project } from '../project/model';
import type { Sources } from '../project/sources';
import { secondsToTicks } from '../time/ticks';
import type { ScreenActivity } from '../vision/screen-activity';
import type { TextLine } from '../vision/page';
import { cheapestCorners, type CornerMoment } from './corner-path';
import { keepClear } from './keep-clear';

const SIZE = { width: 1920, height: 1080 };
const LENGTH = 120;
const END = secondsToTicks(LENGTH);

/** A stretch whose ends lie between the instants that are looked at. */
const [FROM, TO] = [40.1, 60.3].map(secondsToTicks) as [number, number];

/** Lines of text where the presenter stands usually, at the lower right. */
const BELOW: readonly TextLine[] = Array.from({ length: 8 }, (_, i) => ({
  ...{ x: 1300, y: 760 + i * 36, width: 560, height: 22, letters: 11 },
}));
/** Lines everywhere. */
const FULL: readonly TextLine[] = Array.from({ length: 28 }, (_, i) => ({
  ...{ x: 40, y: 30 + i * 37, width: 1840, height: 22, letters: 11 },
}));

/**
 * A screen with a presenter in the lower right corner, and what is read on it from when to when.
 */
function setUp(
  pages: readonly (readonly [from: number, to: number, lines: readonly TextLine[]])[],
  activities: readonly ScreenActivity[] = [],
): { project: Project; sources: Sources } {
  const screen = { ...facts('screen', 'screen', LENGTH), ...SIZE };
  const camera = facts('camera', 'presenter', LENGTH);
  const project = emptyProject();
  const newId = counter();
  placeFootage(project, camera, 0, newId);
  placeFootage(project, screen, 0, newId);
  const sight = {
    ...{ ...SIZE, length: LENGTH * 1000, pointer: null, activities },
    pages: pages.map(([from, to, lines]) => ({
      ...{ from: from * 1000, to: to * 1000, lines, panels: [] },
    })),
  };
  return {
    project,
    sources: { footage: { screen, camera }, pointers: {}, sights: { screen: sight } },
  };
}

/** Whether a line of text lies behind the presenter at a second. */
function hides(project: Project, sources: Sources, second: number, lines: readonly TextLine[]) {
  const inset = insetAt(project, sources, secondsToTicks(second));
  if (!inset) return false;
  const box = {
    ...{ x: inset.x * SIZE.width, y: inset.y * SIZE.height },
    ...{ width: inset.width * SIZE.width, height: inset.height * SIZE.height },
  };
  return lines.some(
    (line) =>
      line.x < box.x + box.width &&
      line.x + line.width > box.x &&
      line.y < box.y + box.height &&
      line.y + line.height > box.y,
  );
}

test('while text lies where they stand, the presenter stands elsewhere', () => {
  const { project, sources } = setUp([
    [0, 30, []],
    [30, 80, BELOW],
    [80, LENGTH, []],
  ]);
  const plan = keepClear(project, sources, null);
  expect(plan.spans).toHaveLength(1);
  const [span] = plan.spans;
  expect(span!.start).toBeLessThanOrEqual(secondsToTicks(30.3));
  expect(span!.end).toBeGreaterThanOrEqual(secondsToTicks(79.7));
  expect(plan.hidden.before).toBeCloseTo(50, 0);
  expect(plan.hidden.after).toBeLessThan(0.6);

  expect(hides(project, sources, 50, BELOW)).toBe(true);
  setClear(project, { start: 0, end: END }, plan.spans, counter());
  for (const second of [32, 50, 78]) expect(hides(project, sources, second, BELOW)).toBe(false);

  // Found anew, it is the same; and none has them stay.
  const again = keepClear(project, sources, null);
  expect(again).toEqual(plan);
  setClear(project, { start: 0, end: END }, [], counter());
  expect(project.layouts).toEqual([]);
});

test('they don’t go where a short word can’t be read for longer than a page of text here', () => {
  const labels = [60, 1780].flatMap((x) =>
    [100, 900].map((y) => ({ x, y, width: 90, height: 22, letters: 11 })),
  );
  const elsewhere = labels.filter(({ x, y }) => x < 900 || y < 500);
  const { project, sources } = setUp([
    [0, 60, elsewhere],
    [60, 75, [...elsewhere, ...BELOW]],
    [75, LENGTH, elsewhere],
  ]);
  const { spans, hidden } = keepClear(project, sources, null);
  expect(spans).toEqual([]);
  expect(hidden).toEqual({ before: 15, after: 15 });
});

test('for a moment, and where there is room nowhere, they stay', () => {
  const short = setUp([
    [0, 40, []],
    [40, 44, BELOW],
    [44, LENGTH, []],
  ]);
  expect(keepClear(short.project, short.sources, null).spans).toEqual([]);
  const full = setUp([[0, LENGTH, FULL]]);
  const plan = keepClear(full.project, full.sources, null);
  expect(plan.spans).toEqual([]);
  expect(plan.hidden.before).toBeCloseTo(LENGTH, 0);
});

test('what is pressed and typed behind them counts as text does', () => {
  const typing: ScreenActivity = {
    ...{ kind: 'typing', start: 50_000, end: 75_000, scrolled: 0 },
    box: { x: 1450, y: 850, width: 300, height: 40 },
  };
  const { project, sources } = setUp([], [typing]);
  const { spans } = keepClear(project, sources, null);
  expect(spans).toHaveLength(1);
  // They are gone before it begins, and did not move while it went on.
  expect(spans[0]!.start).toBeLessThanOrEqual(secondsToTicks(50));
  expect(spans[0]!.end).toBeGreaterThanOrEqual(secondsToTicks(75));
});

test('layouts of another kind stay, and a stretch is all that is changed of a range', () => {
  const { project, sources } = setUp([[0, LENGTH, BELOW]]);
  setLayout(project, { start: FROM, end: TO }, LAYOUTS.side, counter());
  const { spans } = keepClear(project, sources, null);
  // Up to the frame, whatever instants were looked at.
  expect(spans.map(({ start, end }) => [start, end])).toEqual([
    [0, FROM],
    [TO, END],
  ]);
  const range = { start: secondsToTicks(70), end: secondsToTicks(110) };
  const part = keepClear(project, sources, range);
  setClear(project, range, part.spans, counter());
  const clear = project.layouts.filter(({ layout }) => layout.name === KEEPS_CLEAR);
  expect(clear.length).toBeGreaterThan(0);
  for (const { start, end } of clear) expect(start >= range.start && end <= range.end).toBe(true);
});

test('nothing known of the screen, or nobody there, is no reason to move', () => {
  const { project, sources } = setUp([]);
  const nothing = { spans: [], hidden: { before: 0, after: 0 } };
  expect(keepClear(project, sources, null)).toEqual(nothing);
  expect(keepClear(emptyProject(), sources, null)).toEqual(nothing);
});

test('the way through the corners costs no more than any other', () => {
  const moment = fc.option(
    fc.record({
      costs: fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 3, maxLength: 3 }),
      busy: fc.boolean(),
    }),
    { freq: 6 },
  );
  /** What a way costs, as the search counts it: moves are free where nobody is placed. */
  const costOf = (
    moments: readonly (CornerMoment | null)[],
    path: readonly number[],
    home: number,
  ) =>
    path.reduce((sum, corner, i) => {
      const one = moments[i];
      if (!one) return sum;
      const stays = corner === (i ? path[i - 1] : home) || (i > 0 && !moments[i - 1]);
      return sum + one.costs[corner]! + (stays ? 0 : 5 + (i && one.busy ? 12 : 0));
    }, 0);
  const ways = (n: number): number[][] =>
    n ? ways(n - 1).flatMap((way) => [0, 1, 2].map((corner) => [...way, corner])) : [[]];
  fc.assert(
    fc.property(fc.array(moment, { minLength: 1, maxLength: 6 }), fc.nat(2), (moments, home) => {
      const best = cheapestCorners(moments, home);
      const least = Math.min(...ways(moments.length).map((way) => costOf(moments, way, home)));
      expect(costOf(moments, best, home)).toBe(least);
      expect(best.every((corner, i) => moments[i] || corner === home)).toBe(true);
    }),
    { numRuns: 60 },
  );
});
