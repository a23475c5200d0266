import fc from 'fast-check';
import { evenSize, exportScale, wholeSizes } from './export-size';

test('whole scales are whole, others say how much they scale', () => {
  const canvas = { width: 1920, height: 1080 };
  expect(exportScale({ width: 1920, height: 1080 }, canvas)).toEqual({ scale: 1, whole: true });
  expect(exportScale({ width: 3840, height: 2160 }, canvas).whole).toBe(true);
  expect(exportScale({ width: 960, height: 540 }, canvas).whole).toBe(true);
  expect(exportScale({ width: 1280, height: 720 }, canvas)).toMatchObject({ whole: false });
  expect(exportScale({ width: 1280, height: 720 }, canvas).scale).toBeCloseTo(2 / 3);
});

test('every size that is offered is even, of the same shape, whole, and the project’s own is among them', () => {
  const side = fc.integer({ min: 16, max: 3000 }).map((n) => n * 2);
  fc.assert(
    fc.property(side, side, (width, height) => {
      const sizes = wholeSizes({ width, height });
      if (Math.max(width, height) <= 7680) expect(sizes).toContainEqual({ width, height });
      for (const size of sizes) {
        expect((size.width % 2) + (size.height % 2)).toBe(0);
        expect(exportScale(size, { width, height }).whole).toBe(true);
        expect(size.width * height).toBe(size.height * width);
      }
    }),
  );
});

test('shares of odd shapes come out even', () => {
  expect(evenSize({ width: 1080, height: 1920 }, 2 / 3)).toEqual({ width: 720, height: 1280 });
  expect(evenSize({ width: 20, height: 20 }, 0.1)).toEqual({ width: 16, height: 16 });
});
