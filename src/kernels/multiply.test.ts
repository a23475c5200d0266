import fc from 'fast-check';
import type { KernelHeap } from './heap';
import { adjusted, multipliedChroma, multipliedLuma } from './reference';
import { apart, noisyPlane, patchyPlane, testHeap, withPlanes } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

const side = fc.integer({ min: 1, max: 40 });
/** How much longer rows are than what of them is worked on. */
const slack = fc.integer({ min: 0, max: 9 });

/**
 * Calls `want` for each sample within `width`, and takes the others as they were: a kernel leaves
 * them alone.
 */
const within = (
  before: Uint8Array,
  stride: number,
  width: number,
  want: (i: number, x: number, y: number) => number,
) =>
  Uint8Array.from(before, (value, i) =>
    i % stride < width ? want(i, i % stride, Math.floor(i / stride)) : value,
  );

test('brightness and contrast are at most one code value from the reference, with opacity and without', () => {
  fc.assert(
    fc.property(
      side,
      side,
      slack,
      fc.double({ min: 0, max: 3, noNaN: true }),
      fc.double({ min: -220, max: 220, noNaN: true }),
      fc.constantFrom(0, 128),
      fc.boolean(),
      fc.nat(99),
      (w, h, more, factor, offset, pivot, clear, seed) => {
        const stride = w + more;
        const before = noisyPlane(stride, h, seed);
        const alpha = patchyPlane(stride, h, seed);
        const [got, untouched] = withPlanes(heap, [before, alpha], (p, a) =>
          heap.exports.adjustPlane(
            p!,
            stride,
            clear ? a! : 0,
            clear ? stride : 0,
            w,
            h,
            factor,
            offset,
            pivot,
          ),
        ) as [Uint8Array, Uint8Array];
        expect(
          apart(
            got,
            within(before, stride, w, (i) =>
              adjusted(before[i]!, clear ? alpha[i]! : 255, factor, offset, pivot),
            ),
          ),
        ).toBeLessThanOrEqual(1);
        expect([...untouched]).toEqual([...alpha]);
      },
    ),
  );
});

test('a factor of 1 and no offset change nothing', () => {
  const before = noisyPlane(37, 5, 3);
  const [got] = withPlanes(heap, [before], (p) =>
    heap.exports.adjustPlane(p!, 37, 0, 0, 37, 5, 1, 0, 0),
  );
  expect([...got!]).toEqual([...before]);
});

test('luma multiplied or screened is at most one code value from the reference', () => {
  fc.assert(
    fc.property(side, side, slack, fc.boolean(), fc.nat(99), (w, h, more, screen, seed) => {
      const stride = w + more;
      const ground = noisyPlane(stride, h, seed);
      const alpha = patchyPlane(stride, h, seed + 1);
      const laid = noisyPlane(stride, h, seed + 2).map((value, i) =>
        Math.round((value * alpha[i]!) / 255),
      );
      const [got] = withPlanes(heap, [ground, laid, alpha], (t, s, a) =>
        heap.exports.multiplyLuma(t!, stride, s!, stride, a!, stride, w, h, screen ? 1 : 0),
      ) as [Uint8Array];
      expect(
        apart(
          got,
          within(ground, stride, w, (i) => multipliedLuma(ground[i]!, laid[i]!, alpha[i]!, screen)),
        ),
      ).toBeLessThanOrEqual(1);
    }),
  );
});

test('colour multiplied or screened is at most one code value from the reference, whatever the size of the luma beside it', () => {
  fc.assert(
    fc.property(
      side,
      side,
      slack,
      fc.boolean(),
      fc.boolean(),
      fc.nat(99),
      (w, h, more, screen, odd, seed) => {
        const stride = w + more;
        const lumaStride = 2 * w + more - (odd ? 1 : 0);
        const ground = noisyPlane(stride, h, seed);
        const alpha = patchyPlane(stride, h, seed + 1);
        const laid = noisyPlane(stride, h, seed + 2).map((value, i) =>
          Math.round(128 + ((value - 128) * alpha[i]!) / 255),
        );
        const groundLuma = noisyPlane(lumaStride, 2 * h, seed + 3);
        const laidLuma = noisyPlane(lumaStride, 2 * h, seed + 4).map((n) => n >> 1);
        const [got] = withPlanes(
          heap,
          [ground, laid, alpha, groundLuma, laidLuma],
          (t, s, a, tl, sl) =>
            heap.exports.multiplyChroma(
              t!,
              stride,
              s!,
              stride,
              a!,
              stride,
              w,
              h,
              screen ? 1 : 0,
              tl!,
              lumaStride,
              sl!,
              lumaStride,
            ),
        ) as [Uint8Array];
        const want = within(ground, stride, w, (i, x, y) => {
          const at = 2 * y * lumaStride + 2 * x;
          return multipliedChroma(
            ground[i]!,
            laid[i]!,
            alpha[i]!,
            screen,
            groundLuma[at]!,
            laidLuma[at]!,
          );
        });
        expect(apart(got, want)).toBeLessThanOrEqual(1);
      },
    ),
  );
});

test('multiplying by white and screening with black change nothing; by black and with white they give those; grey times grey is exact', () => {
  const run = (target: number, source: number, alpha: number, screen: number) => {
    const [got] = withPlanes(
      heap,
      [
        Uint8Array.of(target),
        Uint8Array.of(Math.round((source * alpha) / 255)),
        Uint8Array.of(alpha),
      ],
      (t, s, a) => heap.exports.multiplyLuma(t!, 1, s!, 1, a!, 1, 1, 1, screen),
    ) as [Uint8Array];
    return got[0];
  };
  for (const luma of [16, 60, 126, 200, 235]) {
    expect(run(luma, 235, 255, 0)).toBe(luma);
    expect(run(luma, 16, 255, 1)).toBe(luma);
    expect(run(luma, 16, 255, 0)).toBe(16);
    expect(run(luma, 235, 255, 1)).toBe(235);
    expect(run(luma, 77, 0, 0)).toBe(luma);
    expect(run(luma, 77, 0, 1)).toBe(luma);
  }
  expect(run(126, 126, 255, 0)).toBe(Math.round(16 + (110 / 219) ** 2 * 219));
  expect(run(126, 126, 255, 1)).toBe(Math.round(235 - (109 / 219) ** 2 * 219));
});

test('multiplying by a mask brings samples to what stands for nothing by what the mask lacks', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 300 }),
      fc.constantFrom(0, 128),
      fc.nat(99),
      (count, pivot, seed) => {
        const before = noisyPlane(count, 1, seed);
        const mask = patchyPlane(count, 1, seed + 1);
        const [got] = withPlanes(heap, [before, mask], (t, m) =>
          heap.exports.multiplyPlane(t!, m!, count, pivot),
        ) as [Uint8Array];
        const want = Float64Array.from(
          before,
          (value, i) => pivot + ((value - pivot) * mask[i]!) / 255,
        );
        expect(apart(got, want)).toBeLessThanOrEqual(0.5 + 1e-9);
      },
    ),
  );
});

test('copying and filling keep to their rectangle', () => {
  fc.assert(
    fc.property(side, side, slack, slack, fc.nat(255), (w, h, more, further, value) => {
      const [from, to] = [noisyPlane(w + more, h, 1), noisyPlane(w + further, h, 2)];
      const [, copied] = withPlanes(heap, [from, to], (s, t) =>
        heap.exports.copyRows(s!, w + more, t!, w + further, w, h),
      ) as [Uint8Array, Uint8Array];
      expect([...copied]).toEqual([
        ...within(to, w + further, w, (_, x, y) => from[y * (w + more) + x]!),
      ]);
      const [filled] = withPlanes(heap, [to], (t) =>
        heap.exports.fillPlane(t!, w + further, w, h, value),
      ) as [Uint8Array];
      expect([...filled]).toEqual([...within(to, w + further, w, () => value)]);
    }),
  );
});
