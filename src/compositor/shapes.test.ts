import fc from 'fast-check';
import type { OutlineMark } from '@/core/frame/mark';
import { parseColor, rgbToYuv } from '@/core/key/color';
import type { KernelHeap } from '@/kernels/heap';
import { testHeap } from '@/kernels/testing';
import { Resampler } from './resampler';
import { coverPlane, FILLED, insideOf, lined, type Profile, type Shape } from './shapes';
import type { PlacedSprite, Sprite } from './sprite';
import { SpriteShop } from './sprites';
import { plainRasterizer } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

const side = fc.integer({ min: 6, max: 90 }).map((n) => 2 * n);
const shapes: fc.Arbitrary<Shape> = fc.oneof(
  fc.constantFrom<Shape>({ shape: 'ellipse' }, { shape: 'rectangle' }, { shape: 'squircle' }),
  fc.integer({ min: 0, max: 5 }).map((radius): Shape => ({ shape: 'rounded', radius })),
);

/** Every pixel for itself. */
function slowly(width: number, height: number, shape: Shape, box: object, profile: Profile) {
  const inside = insideOf(shape, { width, height, ...box });
  return Uint8Array.from({ length: width * height }, (_, i) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    return profile.of(inside(Math.abs(x + 0.5 - width / 2), Math.abs(y + 0.5 - height / 2)));
  });
}

const covered = (width: number, height: number, shape: Shape, box: object, profile: Profile) => {
  const out = new Uint8Array(width * height).fill(77);
  coverPlane(out, { width, height }, insideOf(shape, { width, height, ...box }), profile);
  return out;
};

test('what is worked out along the outline alone is what each pixel would be for itself', () => {
  fc.assert(
    fc.property(side, side, shapes, fc.constantFrom(0, 1, 3, 8), (w, h, shape, line) => {
      fc.pre(w < 4 * h && h < 4 * w);
      const profile = line ? lined(line) : FILLED;
      const box = { width: w - 2 * line, height: h - 2 * line };
      fc.pre(box.width > 4 * line && box.height > 4 * line);
      expect(covered(w, h, shape, box, profile)).toEqual(slowly(w, h, shape, box, profile));
    }),
    { numRuns: 150 },
  );
});

test('an outline covers its area, and a line along it its length times its width', () => {
  const sum = (plane: Uint8Array) => plane.reduce((a, b) => a + b, 0) / 255;
  const size = { width: 200, height: 160 };
  const box = { width: 160, height: 120 };
  const of = (shape: Shape, profile: Profile) =>
    sum(covered(size.width, size.height, shape, box, profile));
  expect(of({ shape: 'ellipse' }, FILLED)).toBeCloseTo(Math.PI * 80 * 60, -2);
  expect(of({ shape: 'rectangle' }, FILLED)).toBe(160 * 120);
  const corners = (4 - Math.PI) * 20 ** 2;
  expect(of({ shape: 'rounded', radius: 20 }, FILLED) / (160 * 120 - corners)).toBeCloseTo(1, 3);
  expect(of({ shape: 'rectangle' }, lined(4))).toBe(164 * 124 - 156 * 116);
  const around = 2 * (160 + 120) - 8 * 20 + 2 * Math.PI * 20;
  expect(of({ shape: 'rounded', radius: 20 }, lined(4)) / (4 * around)).toBeCloseTo(1, 2);
  // Corners are no rounder than there is room for.
  expect(of({ shape: 'rounded', radius: 400 }, FILLED)).toBe(
    of({ shape: 'rounded', radius: 60 }, FILLED),
  );
  // Ramanujan's approximation of an ellipse's length.
  const k = ((80 - 60) / (80 + 60)) ** 2;
  const ellipse = Math.PI * 140 * (1 + (3 * k) / (10 + Math.sqrt(4 - 3 * k)));
  expect(of({ shape: 'ellipse' }, lined(4)) / (4 * ellipse)).toBeCloseTo(1, 2);
});

const mark = (more: Partial<OutlineMark>): OutlineMark => ({
  ...{ kind: 'outline', shape: 'rectangle', radius: 0, fill: null, stroke: null },
  box: { x: 40, y: 20, width: 120, height: 80 },
  ...more,
});

function drawn(one: OutlineMark) {
  const shop = new SpriteShop(heap, plainRasterizer, new Resampler(heap));
  const [{ sprite, x, y }] = shop.place(one, { width: 400, height: 300 }) as [PlacedSprite];
  const plane = (name: 'y' | 'u' | 'v' | 'alpha') => {
    const { at, stride, height } = sprite[name];
    return heap.bytes(at, stride * height).slice();
  };
  const at = (name: 'y' | 'u' | 'v' | 'alpha', px: number, py: number) => {
    const by = sprite.width / sprite[name].width;
    const [sx, sy] = [(px - x) / by, (py - y) / by];
    return plane(name)[Math.floor(sy) * sprite[name].stride + Math.floor(sx)]!;
  };
  return { sprite: sprite satisfies Sprite, at };
}

test('a ring has one colour, or goes over to a second from the upper left to the lower right', () => {
  const stroke = { width: 6, color: '#204060', second: '#e0f0ff' };
  const { at } = drawn(mark({ stroke }));
  const [from, to] = [stroke.color, stroke.second].map((c) => rgbToYuv(parseColor(c)));
  expect(at('alpha', 40, 60)).toBe(255);
  expect(at('alpha', 100, 60)).toBe(0);
  expect(Math.abs(at('y', 41, 21) - from![0])).toBeLessThan(5);
  expect(Math.abs(at('y', 158, 98) - to![0])).toBeLessThan(5);
  expect(Math.abs(at('y', 100, 60) - (from![0] + to![0]) / 2)).toBeLessThan(3);
  expect(Math.abs(at('u', 100, 60) - (from![1] + to![1]) / 2)).toBeLessThan(3);
  const plain = drawn(mark({ stroke: { width: 6, color: '#204060' } }));
  expect([plain.at('y', 42, 22), plain.at('y', 158, 98)]).toEqual(
    [from![0], from![0]].map(Math.round),
  );
});

/** The normal distribution's cumulative function (M. Abramowitz and I. Stegun, 7.1.26). */
function normal(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x / Math.SQRT2));
  const p =
    t *
    (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const erf = 1 - p * Math.exp((-x * x) / 2);
  return (1 + Math.sign(x) * erf) / 2;
}

test('a shadow is the box, blurred: half at its border, a quarter at its corners, as far as it is soft', () => {
  const soft = 24;
  const { at } = drawn(mark({ fill: '#000000', soft }));
  const share = (x: number, y: number) => {
    const across = (d: number, length: number) =>
      normal(d / (soft / 2)) - normal((d - length) / (soft / 2));
    return across(x + 0.5 - 40, 120) * across(y + 0.5 - 20, 80);
  };
  for (const [x, y] of [
    ...[
      [100, 60],
      [40, 60],
      [100, 20],
    ],
    ...[
      [40, 20],
      [30, 60],
      [159, 99],
    ],
    [100, 110],
  ] as [number, number][])
    expect(Math.abs(at('alpha', x, y) / 255 - share(x, y))).toBeLessThan(0.05);
  // On odd sides it is drawn all the same.
  const odd = drawn(mark({ fill: '#000000', soft, box: { x: 40, y: 20, width: 121, height: 79 } }));
  expect(odd.at('alpha', 100, 60)).toBeGreaterThan(240);
});
