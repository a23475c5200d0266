import fc from 'fast-check';
import { WARMEST } from './light';
import { matchLook, takeColors, type TakeColors } from './match-look';

const size = { width: 80, height: 60 };
const N = 80 * 60;

/** A take of many colours. */
const take = (seed: number) => {
  const at = (i: number, k: number) =>
    (Math.imul(i + seed * 77 + k * 991, 2654435761) >>> 24) / 255;
  const plane = (count: number, k: number, middle: number, spread: number) =>
    Uint8Array.from({ length: count }, (_, i) => Math.round(middle + (at(i, k) - 0.5) * spread));
  return { y: plane(N, 1, 120, 100), u: plane(N / 4, 2, 118, 30), v: plane(N / 4, 3, 142, 30) };
};
const opaque = new Uint8Array(N).fill(255);
const colorsOf = ({ y, u, v }: ReturnType<typeof take>): TakeColors =>
  takeColors(size, opaque, y, u, v)!;

/** What the compositor makes of a take, to first order. */
function looked(colors: TakeColors, look: ReturnType<typeof matchLook>): TakeColors {
  const gain = look.contrast * look.saturation;
  const warm = ((colors.light.mean - 16) / 219) * look.temperature;
  return {
    light: {
      mean: (colors.light.mean - 126) * look.contrast + 126 + look.brightness * 219,
      spread: colors.light.spread * look.contrast,
    },
    color: {
      u: (colors.color.u + WARMEST.u * warm) * gain,
      v: (colors.color.v + WARMEST.v * warm) * gain,
      spread: colors.color.spread * gain,
    },
  };
}

test('a take is like itself', () => {
  const own = colorsOf(take(1));
  expect(matchLook(own, own)).toEqual({
    ...{ brightness: 0, contrast: 1, saturation: 1, temperature: 0 },
  });
});

test('a take in another light comes close to the first one, whatever the light', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -0.15, max: 0.15, noNaN: true }),
      fc.double({ min: 0.75, max: 1.3, noNaN: true }),
      fc.double({ min: 0.7, max: 1.4, noNaN: true }),
      fc.double({ min: -0.5, max: 0.5, noNaN: true }),
      (brightness, contrast, saturation, temperature) => {
        const wanted = colorsOf(take(1));
        const own = looked(wanted, { brightness, contrast, saturation, temperature });
        const got = looked(own, matchLook(own, wanted));
        expect(Math.abs(got.light.mean - wanted.light.mean)).toBeLessThan(3);
        expect(Math.abs(got.light.spread / wanted.light.spread - 1)).toBeLessThan(0.03);
        expect(Math.abs(got.color.spread / wanted.color.spread - 1)).toBeLessThan(0.05);
        // Warmth is one direction of two; across it nothing is changed.
        const off = (colors: TakeColors) =>
          Math.abs(
            (colors.color.u - wanted.color.u) * WARMEST.u +
              (colors.color.v - wanted.color.v) * WARMEST.v,
          );
        expect(off(got)).toBeLessThan(Math.max(off(own), 60));
      },
    ),
  );
});

test('only what is opaque counts, and hardly anything is nothing', () => {
  const { y, u, v } = take(2);
  const half = opaque.map((_, i) => (i < N / 2 ? 255 : 40));
  const upper = takeColors(size, half, y, u, v)!;
  const spoiled = y.map((luma, i) => (i < N / 2 ? luma : 235));
  expect(takeColors(size, half, spoiled, u, v)).toEqual(upper);
  expect(takeColors(size, new Uint8Array(N), y, u, v)).toBeNull();
});
