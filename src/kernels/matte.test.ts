import fc from 'fast-check';
import type { KernelHeap } from './heap';
import { halved, keyDistance, keyOpacity, refined, spread, unmixed } from './reference';
import { apart, noisyPlane, patchyPlane, testHeap, withPlanes } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});
const side = fc.integer({ min: 1, max: 45 });
const wide = fc.integer({ min: 1, max: 130 });

test('opacity from colour is within one code value of the reference, for any wall', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 90 }),
      fc.nat(999),
      fc.nat(60),
      fc.integer({ min: 1, max: 80 }),
      (count, seed, inner, width) => {
        const planes = [0, 1, 2, 3].map((k) => noisyPlane(count, 1, seed + k));
        const [u, v, wu, wv] = planes as [Uint8Array, Uint8Array, Uint8Array, Uint8Array];
        const [alpha] = withPlanes(
          heap,
          [new Uint8Array(count), ...planes],
          (a, pu, pv, pwu, pwv) =>
            heap.exports.keyAlpha(pu!, pv!, pwu!, pwv!, a!, count, inner, inner + width, 0.45),
        ) as [Uint8Array];
        const want = Array.from(u, (_, i) =>
          keyOpacity(keyDistance(u[i]!, v[i]!, wu[i]!, wv[i]!, 0.45), inner, inner + width),
        );
        expect(apart(alpha, want)).toBeLessThanOrEqual(1);
      },
    ),
  );
});

test('the wall is clear wherever its light falls off, what is neutral or of another colour is opaque', () => {
  // Wall, the same in half the light, grey, skin, and a yellow that has much of green in it.
  const colors = [
    [104, 90],
    [116, 109],
    [128, 128],
    [112, 152],
    [38, 138],
  ];
  const walls = [
    [104, 90],
    [116, 109],
    [104, 90],
    [104, 90],
    [104, 90],
  ];
  const plane = (list: number[][], k: number) =>
    Uint8Array.from({ length: 8 }, (_, i) => list[i]?.[k] ?? 128);
  const [alpha] = withPlanes(
    heap,
    [new Uint8Array(8), plane(colors, 0), plane(colors, 1), plane(walls, 0), plane(walls, 1)],
    (a, u, v, wu, wv) => heap.exports.keyAlpha(u!, v!, wu!, wv!, a!, 8, 4, 40, 0.45),
  ) as [Uint8Array];
  expect([...alpha.subarray(0, 5)]).toEqual([0, 0, 255, 255, 255]);
});

test('colours close to the wall are as opaque as the reference says, walls without colour too', () => {
  const near = fc.integer({ min: -3, max: 3 });
  fc.assert(
    fc.property(
      fc.constantFrom([128, 128], [128, 129], [104, 90], [90, 160]),
      fc.array(fc.tuple(near, near), { minLength: 1, maxLength: 50 }),
      fc.double({ min: 0, max: 8, noNaN: true }),
      fc.integer({ min: 1, max: 40 }),
      ([wallU, wallV], offsets, inner, width) => {
        const u = Uint8Array.from(offsets, ([du]) => wallU! + du);
        const v = Uint8Array.from(offsets, ([, dv]) => wallV! + dv);
        const [wu, wv] = [u.map(() => wallU!), v.map(() => wallV!)];
        const [alpha] = withPlanes(
          heap,
          [new Uint8Array(u.length), u, v, wu, wv],
          (a, pu, pv, pwu, pwv) =>
            heap.exports.keyAlpha(pu!, pv!, pwu!, pwv!, a!, u.length, inner, inner + width, 0.45),
        ) as [Uint8Array];
        const want = Array.from(u, (_, i) =>
          keyOpacity(keyDistance(u[i]!, v[i]!, wallU!, wallV!, 0.45), inner, inner + width),
        );
        expect(apart(alpha, want)).toBeLessThanOrEqual(1);
      },
    ),
    {
      examples: [
        [[128, 128], Array.from({ length: 20 }, () => [0, 0] as [number, number]), 0.2, 1],
      ],
    },
  );
});

test('halving stands where chroma does, at any size', () => {
  fc.assert(
    fc.property(side, side, fc.nat(99), (w, h, seed) => {
      const plane = noisyPlane(w, h, seed);
      const [, half] = withPlanes(
        heap,
        [plane, new Uint8Array(((w + 1) >> 1) * ((h + 1) >> 1))],
        (from, to) => heap.exports.halvePlane(from!, w, w, h, to!),
      ) as [Uint8Array, Uint8Array];
      expect([...half]).toEqual([...halved(plane, w, h)]);
    }),
  );
});

test('opacity refined by luma is within one code value of the reference, at any size', () => {
  fc.assert(
    fc.property(
      wide,
      side,
      fc.nat(99),
      fc.constantFrom(noisyPlane, patchyPlane),
      (w, h, seed, opacity) => {
        const [cw, ch] = [(w + 1) >> 1, (h + 1) >> 1];
        const luma = noisyPlane(w, h, seed).map((v) => 60 + (v >> 1));
        const alpha = opacity(cw, ch, seed + 1);
        const floats = (cw + 4) * ch * 4;
        const planes = [
          luma,
          alpha,
          halved(luma, w, h),
          new Uint8Array(floats),
          new Uint8Array(floats),
          new Uint8Array(((cw + 7) >> 3) * ch),
          new Uint8Array((cw + 16) * 17 + 64),
          new Uint8Array(w * h),
        ];
        const out = withPlanes(
          heap,
          planes,
          (y, a, guide, slopes, offsets, states, scratch, to) => {
            heap.exports.guideAlpha(guide!, a!, cw, ch, 2, slopes!, offsets!, states!, scratch!);
            heap.exports.refineAlpha(y!, w, w, h, slopes!, offsets!, states!, 0.04, to!);
          },
        );
        expect(apart(out[7]!, refined(luma, alpha, w, h, 2, 0.04))).toBeLessThanOrEqual(1);
      },
    ),
  );
});

test('what is unmixed and laid on the wall again is what was there; on nothing it is the presenter’s own', () => {
  fc.assert(
    fc.property(
      wide,
      fc.nat(999),
      fc.constantFrom(0, 128),
      fc.constantFrom(noisyPlane, patchyPlane),
      (count, seed, pivot, opacity) => {
        const [plane, wall] = [noisyPlane(count, 1, seed), noisyPlane(count, 1, seed + 1)];
        const alpha = opacity(count, 1, seed + 2);
        const most = pivot ? 127 : 255;
        const [own] = withPlanes(heap, [plane, wall, alpha], (p, w, a) =>
          heap.exports.unmixPlane(p!, w!, a!, count, pivot, most, p!),
        ) as [Uint8Array];
        expect(
          apart(
            own,
            Array.from(plane, (_, i) => unmixed(plane[i]!, wall[i]!, alpha[i]!, pivot, most)),
          ),
        ).toBeLessThanOrEqual(1.5);
        const [back] = withPlanes(heap, [wall, own, alpha], (t, s, a) =>
          heap.exports.layPlane(t!, count, s!, count, a!, count, count, 1, pivot),
        ) as [Uint8Array];
        // Where a colour can't be a mixture with the wall it was brought to the nearest that can.
        const mixable = Array.from(plane, (_, i) => {
          const raw = plane[i]! - (pivot + ((wall[i]! - pivot) * (255 - alpha[i]!)) / 255);
          const bound = (alpha[i]! * most) / 255;
          return raw <= bound && raw >= (pivot ? -bound : 0);
        });
        back.forEach(
          (value, i) => mixable[i] && expect(Math.abs(value - plane[i]!)).toBeLessThanOrEqual(2),
        );
      },
    ),
  );
});

test('choking and growing take the least and the largest of the square', () => {
  fc.assert(
    fc.property(
      side,
      side,
      fc.integer({ min: 1, max: 6 }),
      fc.boolean(),
      fc.nat(99),
      (w, h, radius, grow, seed) => {
        const plane = noisyPlane(w, h, seed);
        const [got] = withPlanes(heap, [plane, new Uint8Array(w * h)], (p, scratch) =>
          heap.exports.spreadPlane(p!, w, h, radius, grow ? 1 : 0, scratch!),
        ) as [Uint8Array];
        expect([...got]).toEqual([...spread(plane, w, h, radius, grow)]);
      },
    ),
  );
});

test('fading leaves the disc, changes the rest by its strength and grows from one to the other', () => {
  fc.assert(
    fc.property(
      side,
      side,
      fc.integer({ min: -10, max: 50 }),
      fc.integer({ min: -10, max: 50 }),
      fc.nat(255),
      fc.nat(99),
      (w, h, cx, cy, strength, seed) => {
        const plane = noisyPlane(w, h, seed);
        const [got] = withPlanes(heap, [plane], (p) =>
          heap.exports.fadeOutside(p!, w, w, h, cx, cy, 8, 16, 16, strength),
        ) as [Uint8Array];
        got.forEach((value, i) => {
          const away = Math.hypot((i % w) + 0.5 - cx, Math.floor(i / w) + 0.5 - cy);
          const t = Math.min(1, Math.max(0, (away - 8) / 8));
          const want = plane[i]! + ((16 - plane[i]!) * t * t * (3 - 2 * t) * strength) / 255;
          expect(Math.abs(value - want)).toBeLessThanOrEqual(1.2);
        });
      },
    ),
  );
});
