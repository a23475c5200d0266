import fc from 'fast-check';
import { blank, letters } from '../testing';
import type { Luma } from '../luma';
import { appearanceIn, BLOCK, rescaled, whatIsTold } from './appearance';
import { likenessAt } from './likeness';
import { refined } from './refine';
import { searchPoints } from './search-points';
import { Surroundings, within } from './surroundings';

const SIZE = { width: 320, height: 240 };
const page = letters(SIZE);
const rect = { x: 100, y: 90, width: 120, height: 40 };
const own = appearanceIn(page, rect);

/** The picture with each sample put elsewhere or changed. */
const altered = (change: (sample: number, x: number, y: number) => number): Luma => ({
  ...page,
  data: page.data.map((sample, at) =>
    change(sample, at % page.stride, Math.floor(at / page.stride)),
  ),
});

/** The picture moved by fractions of a pixel, each sample between the four nearest. */
const moved = (dx: number, dy: number): Luma =>
  altered((_, x, y) => {
    const at = (u: number, v: number) =>
      page.data[
        Math.min(Math.max(v, 0), SIZE.height - 1) * page.stride +
          Math.min(Math.max(u, 0), SIZE.width - 1)
      ]!;
    const [u, v] = [Math.floor(x - dx), Math.floor(y - dy)];
    const [fx, fy] = [x - dx - u, y - dy - v];
    const upper = at(u, v) * (1 - fx) + at(u + 1, v) * fx;
    const lower = at(u, v + 1) * (1 - fx) + at(u + 1, v + 1) * fx;
    return Math.round(upper * (1 - fy) + lower * fy);
  });

test('content is wholly like itself, whatever its contrast and brightness, and nowhere else', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.2, max: 0.9, noNaN: true }), fc.nat(20), (gain, lift) => {
      const picture = altered((sample) => Math.round(sample * gain) + lift);
      const found = likenessAt(own, picture, rect.x, rect.y);
      expect(found).toMatchObject({ seen: 1, inverted: false });
      expect(found.mean).toBeGreaterThan(0.98);
    }),
  );
  expect(likenessAt(own, page, rect.x + 5, rect.y).seen).toBeLessThan(0.2);
});

test('content in dark colours is told by the same letters', () => {
  const dark = altered((sample) => 255 - sample);
  expect(likenessAt(own, dark, rect.x, rect.y)).toMatchObject({ seen: 1, inverted: true });
});

test('content that reaches beyond the picture is seen in part', () => {
  const { seen } = likenessAt(appearanceIn(page, rect), page, -60, 90);
  expect(seen).toBeLessThan(0.6);
  expect(likenessAt(own, page, 400, 400)).toEqual({ mean: 0, seen: 0, inverted: false });
});

test('a place is told to a quarter of a pixel', () => {
  const shift = fc.integer({ min: -4, max: 4 }).map((n) => n / 8);
  fc.assert(
    fc.property(shift, shift, (dx, dy) => {
      const found = refined(own, moved(dx, dy), rect);
      expect(Math.abs(found.x - rect.x - dx)).toBeLessThanOrEqual(0.26);
      expect(Math.abs(found.y - rect.y - dy)).toBeLessThanOrEqual(0.26);
      expect(found.x * 4).toBe(Math.round(found.x * 4));
    }),
    { numRuns: 25 },
  );
});

test('points hold for the content moved by up to half a pixel, and tell it from other places', () => {
  const points = searchPoints(own)!;
  const misfits = (picture: Luma, x: number, y: number) =>
    points.filter((point) => {
      const sample = picture.data[(y + point.y) * picture.stride + x + point.x]!;
      return sample < point.low || sample > point.high;
    }).length / points.length;
  for (const [dx, dy] of [
    [0, 0],
    [0.5, 0],
    [0, -0.5],
    [0.4, 0.4],
  ] as const)
    expect(misfits(moved(dx, dy), rect.x, rect.y)).toBeLessThan(0.1);
  expect(misfits(page, rect.x + 4, rect.y)).toBeGreaterThan(0.25);
  expect(searchPoints(appearanceIn(blank(SIZE), rect))).toBeNull();
});

test('at its own size content is the same, and at twice it is told in a picture of twice the size', () => {
  expect(rescaled(own, 1)).toEqual(own);
  const large = { width: SIZE.width * 2, height: SIZE.height * 2 };
  const twice = {
    ...{ ...large, stride: large.width },
    data: rescaled({ ...SIZE, luma: page.data, blocks: [] }, 2).luma,
  };
  const { mean, seen } = likenessAt(rescaled(own, 2), twice, rect.x * 2, rect.y * 2);
  expect(mean).toBeGreaterThan(0.95);
  expect(seen).toBe(1);
});

test('what is smaller than a square is told with what is around it, within the picture', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -50, max: 400, noNaN: true }),
      fc.double({ min: 2, max: 60, noNaN: true }),
      (at, side) => {
        const { width, height } = whatIsTold({ x: at, y: at, width: side, height: side }, page);
        expect(width).toBeGreaterThanOrEqual(BLOCK);
        expect(height).toBeGreaterThanOrEqual(BLOCK);
      },
    ),
  );
});

test('surroundings tell by how much they went along', () => {
  const about = new Surroundings(page, rect);
  expect(about.any).toBe(true);
  expect(about.movedBy(page, 0, 0)).toBe(1);
  const scrolled = altered((_, x, y) => page.data[Math.max(0, y - 13) * page.stride + x]!);
  expect(about.movedBy(scrolled, 0, 13)).toBeGreaterThan(0.9);
  expect(about.movedBy(scrolled, 0, 0)).toBeLessThan(0.2);
});

test('tiles are within a rectangle if they touch it', () => {
  expect(within([0, 1, 20, 21, 40], 20, { x: 17, y: 17, width: 4, height: 4 })).toEqual([21]);
  expect(within([0, 1, 20, 21], 20, { x: 0, y: 0, width: 17, height: 16 })).toEqual([0, 1]);
});
