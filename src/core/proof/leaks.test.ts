import { UNPOSED } from '../callout/keyframes';
import fc from 'fast-check';
import { emptyProject } from '../edit/fixture';
import { letters } from '../vision/testing';
import type { Luma } from '../vision/luma';
import { leaks, leakStretches, readableShare, type LeakSpot } from './leaks';
import { remedyFor } from './remedy';

const SIZE = { width: 320, height: 240 };
const page = letters(SIZE);
const rect = { x: 60, y: 48, width: 160, height: 44 };

/** The picture with a part of it changed. */
const covered = (change: (x: number, y: number) => number): Luma => ({
  ...page,
  data: page.data.map((sample, at) => {
    const [x, y] = [at % SIZE.width, Math.floor(at / SIZE.width)];
    const inside =
      x >= rect.x && y >= rect.y && x < rect.x + rect.width && y < rect.y + rect.height;
    return inside ? change(x, y) : sample;
  }),
});
const sampleAt = (x: number, y: number) => page.data[y * SIZE.width + x]!;

test('what lies bare is readable, also faint or in dark colours, and what is painted over is not', () => {
  expect(readableShare(page, page, rect)).toBe(1);
  fc.assert(
    fc.property(fc.double({ min: 0.15, max: 1, noNaN: true }), (gain) => {
      const faint = covered((x, y) => 120 + (sampleAt(x, y) - 120) * gain);
      expect(leaks(readableShare(page, faint, rect))).toBe(true);
    }),
  );
  const dark = covered((x, y) => 255 - sampleAt(x, y));
  expect(readableShare(page, dark, rect)).toBe(1);
  expect(
    readableShare(
      page,
      covered(() => 40),
      rect,
    ),
  ).toBe(0);
});

test('a part of it that lies bare is enough, and small blocks hide nothing', () => {
  const half = covered((x, y) => (x < rect.x + 110 ? 40 : sampleAt(x, y)));
  expect(leaks(readableShare(page, half, rect))).toBe(true);
  const blocks = (side: number) =>
    covered((x, y) => {
      let sum = 0;
      const [left, top] = [Math.floor(x / side) * side, Math.floor(y / side) * side];
      for (let v = 0; v < side; v++)
        for (let u = 0; u < side; u++) sum += sampleAt(left + u, top + v);
      return sum / side ** 2;
    });
  expect(leaks(readableShare(page, blocks(2), rect))).toBe(true);
  expect(leaks(readableShare(page, blocks(4), rect))).toBe(true);
  expect(leaks(readableShare(page, blocks(32), rect))).toBe(false);
});

test('the edges of covers and the bands that are left of lines of text tell nothing', () => {
  const bands = covered((_, y) => 150 + 60 * Math.sin((y - 4) / 3.2) + (y > 70 ? 20 : 0));
  expect(leaks(readableShare(page, bands, rect))).toBe(false);
  const traces = covered((x, y) => Math.round(200 + (sampleAt(x, y) - 200) / 400));
  expect(leaks(readableShare(page, traces, rect))).toBe(false);
});

test('a place beyond the picture, or of nothing, has nothing to read', () => {
  expect(readableShare(page, page, { x: 900, y: 0, width: 50, height: 50 })).toBe(0);
  expect(readableShare(page, page, { x: 10, y: 10, width: 2, height: 2 })).toBe(0);
  expect(readableShare(page, page, { x: 0, y: 0, width: 16, height: 8 })).toBe(0);
});

const spot = (frame: number, share = 0.5, more: Partial<LeakSpot> = {}): LeakSpot => ({
  ...{ frame, share, coverId: 'c', covered: false, rect: { ...rect } },
  ...more,
});

test('leaks of one cover that follow each other are one stretch, with the worst of them', () => {
  const found = leakStretches([
    spot(12, 0.9),
    spot(10),
    spot(11, 0.3),
    spot(11, 0.4),
    spot(60),
    spot(11, 0.2, { covered: true }),
  ]);
  expect(found).toHaveLength(3);
  expect(found[0]).toMatchObject({ from: 10, to: 12, frames: 3, worst: { frame: 12, share: 0.9 } });
  expect(found.map(({ covered: is }) => is)).toEqual([false, true, false]);
});

test('each leak has a remedy that fits its cover', () => {
  const project = emptyProject();
  project.callouts.push({
    ...{ id: 'c', kind: 'cover', way: 'blur', color: '#1e2a32', strength: 4, start: 0, end: 1000 },
    ...{ anchor: { to: 'footage', footageId: 'screen' }, ...UNPOSED, rect },
  });
  const said = (one: LeakSpot) => remedyFor(project, leakStretches([one])[0]!, 0, 10);
  expect(said(spot(1, 0.5, { covered: true }))).toMatch(/too weak/);
  expect(said(spot(1))).toMatch(/moves away/);
  expect(said(spot(500))).toMatch(/outside of its time/);
  expect(said(spot(1, 0.5, { coverId: 'gone' }))).toMatch(/not there any more/);
});
