import fc from 'fast-check';
import type { KernelHeap } from './heap';
import { divided, solvedShares, steadied, tinted } from './reference';
import { apart, noisyPlane, patchyPlane, testHeap, withPlanes } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});
const count = fc.integer({ min: 1, max: 90 });
const seeds = fc.nat(999);

test('samples are divided by their weights around a middle, and are that where there is none', () => {
  fc.assert(
    fc.property(count, seeds, fc.constantFrom(0, 128), (n, seed, pivot) => {
      const plane = noisyPlane(n, 1, seed);
      const weights = patchyPlane(n, 1, seed + 1);
      const [got] = withPlanes(heap, [plane, weights], (a, b) =>
        heap.exports.dividePlane(a!, b!, n, pivot),
      ) as [Uint8Array];
      const want = Array.from(plane, (value, i) => divided(value, weights[i]!, pivot));
      expect(apart(got, want)).toBeLessThanOrEqual(1);
    }),
  );
});

test('of two planes the lesser samples stay', () => {
  fc.assert(
    fc.property(count, seeds, (n, seed) => {
      const [a, b] = [noisyPlane(n, 1, seed), noisyPlane(n, 1, seed + 7)];
      const [got] = withPlanes(heap, [a, b], (x, y) => heap.exports.leastPlane(x!, y!, n)) as [
        Uint8Array,
      ];
      expect([...got]).toEqual([...a].map((value, i) => Math.min(value, b[i]!)));
    }),
  );
});

describe('steadied opacity', () => {
  /** What becomes of opacities; planes have a sample more on both sides. */
  function run(
    alpha: Uint8Array,
    before: Uint8Array,
    now: Uint8Array,
    then: Uint8Array,
    f: number,
  ) {
    const [got] = withPlanes(heap, [alpha, before, now, then], (a, b, y, z) =>
      heap.exports.steadyAlpha(a! + 1, b! + 1, y! + 1, z! + 1, alpha.length - 2, f),
    ) as [Uint8Array];
    return got;
  }

  test('is that of the reference', () => {
    fc.assert(
      fc.property(count, seeds, fc.integer({ min: 0, max: 255 }), (n, seed, fresh) => {
        const [alpha, before, now] = [0, 1, 2].map((k) => noisyPlane(n + 2, 1, seed + k));
        const then = now!.map((value, i) => Math.max(0, value - (i % 13)));
        const got = run(alpha!, before!, now!, then, fresh);
        const want = Array.from(alpha!, (value, i) =>
          i === 0 || i > n ? value : steadied(i, alpha!, before!, now!, then, fresh),
        );
        expect(apart(got, want)).toBeLessThanOrEqual(2);
      }),
    );
  });

  test('lies between what was and what is; all of what is new is taken where the picture changed', () => {
    const alpha = new Uint8Array(18).fill(120);
    const before = new Uint8Array(18).fill(112);
    const still = new Uint8Array(18).fill(90);
    const [calm] = [run(alpha, before, still, still, 40)];
    expect(calm[5]).toBeGreaterThanOrEqual(112);
    expect(calm[5]).toBeLessThan(116);
    expect(
      run(
        alpha,
        before,
        still,
        still.map((v) => v + 40),
        40,
      )[5],
    ).toBe(120);
    // A hand that comes is no noise, even where luma happens to stay the same.
    expect(run(new Uint8Array(18).fill(255), before, still, still, 40)[5]).toBe(255);
  });
});

test('warmer light adds to colours by how bright they are, and leaves black black', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 30 }),
      fc.integer({ min: 1, max: 9 }),
      seeds,
      fc.integer({ min: -32, max: 32 }),
      (w, h, seed, amount) => {
        const [cw, ch] = [(w + 1) >> 1, (h + 1) >> 1];
        const luma = noisyPlane(w, h, seed);
        const chroma = noisyPlane(cw, ch, seed + 1);
        const [got] = withPlanes(heap, [chroma, luma], (c, l) =>
          heap.exports.tintPlane(c!, cw, cw, ch, l!, w, w, h, amount),
        ) as [Uint8Array];
        const want = Array.from(chroma, (value, i) => tinted(value, i, luma, w, h, amount));
        expect(apart(got, want)).toBeLessThanOrEqual(1);
      },
    ),
  );
  const [black] = withPlanes(heap, [Uint8Array.of(128), new Uint8Array(4).fill(16)], (c, l) =>
    heap.exports.tintPlane(c!, 1, 1, 1, l!, 2, 2, 2, 30),
  ) as [Uint8Array];
  expect(black[0]).toBe(128);
});

test('a mixture of two colours is solved for its share to within a few code values', () => {
  const [w, h] = [32, 16];
  const [own, wall] = [
    [150, 110, 160],
    [120, 90, 100],
  ];
  // A ramp of eight samples from opaque to clear; the key took it to be steeper than it is.
  const share = (x: number) => Math.min(1, Math.max(0, (20 - x) / 8));
  const plane = (k: number) =>
    Uint8Array.from({ length: w * h }, (_, i) =>
      Math.round(wall[k]! + (own[k]! - wall[k]!) * share(i % w)),
    );
  const flat = (value: number) => new Uint8Array(w * h).fill(value);
  const guess = Uint8Array.from({ length: w * h }, (_, i) => Math.round(255 * share(i % w) ** 2));
  const scratch = new Uint8Array(heap.exports.solveRoom(w, h));
  const planes = [plane(0), plane(1), plane(2), flat(wall[0]!), flat(wall[1]!), flat(wall[2]!)];
  const alpha = withPlanes(heap, [...planes, guess, scratch], (...at) =>
    heap.exports.solveAlpha(
      at[0]!,
      at[1]!,
      at[2]!,
      at[3]!,
      at[4]!,
      at[5]!,
      at[6]!,
      w,
      h,
      ...[0, 0, 2],
      at[7]!,
    ),
  )[6]!;
  const want = solvedShares(share, w);
  for (let x = 1; x < w - 1; x++) {
    const guessed = guess[8 * w + x]!;
    if (guessed === 0 || guessed === 255) expect(alpha[8 * w + x]).toBe(guessed);
    else expect(Math.abs(alpha[8 * w + x]! - want[x]!)).toBeLessThanOrEqual(14);
  }
});

test('what is of neither colour, as an eye in a face, keeps the opacity that the key gave it', () => {
  const [w, h] = [40, 24];
  const inside = (i: number) => Math.hypot((i % w) - 20, Math.floor(i / w) - 12) < 3;
  const plane = (own: number, eye: number) =>
    Uint8Array.from({ length: w * h }, (_, i) => (inside(i) ? eye : own));
  const flat = (value: number) => new Uint8Array(w * h).fill(value);
  // Skin, a dark eye, and a wall that is lighter than it and darker than skin.
  const planes = [plane(170, 50), plane(112, 132), plane(150, 124)];
  const walls = [flat(115), flat(100), flat(92)];
  const guess = Uint8Array.from({ length: w * h }, (_, i) => (inside(i) ? 215 : 255));
  const scratch = new Uint8Array(heap.exports.solveRoom(w, h));
  const alpha = withPlanes(heap, [...planes, ...walls, guess, scratch], (y, u, v, a, b, c, d, e) =>
    heap.exports.solveAlpha(y!, u!, v!, a!, b!, c!, d!, w, h, 0, 0, 2, e!),
  )[6]!;
  expect(alpha[12 * w + 20]).toBeGreaterThan(205);
});
