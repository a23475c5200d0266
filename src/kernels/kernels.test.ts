import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { filterTable } from '@/core/scale/filter';
import { KERNEL_ARITIES } from './exports';
import { KernelHeap } from './heap';
import { blurRoom } from './planar';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await KernelHeap.load(readFileSync('public/kernels.wasm'));
});

const plane = (width: number, height: number, seed: number) =>
  Uint8Array.from({ length: width * height }, (_, i) => ((i + seed) * 2654435761) >>> 24);

/** What resampling means, in plain arithmetic and double precision between the passes. */
function reference(
  source: Uint8Array,
  sw: number,
  sh: number,
  across: ReturnType<typeof filterTable>,
  down: ReturnType<typeof filterTable>,
  w: number,
  h: number,
): Uint8Array {
  const out = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let j = 0; j < down.taps; j++)
        for (let i = 0; i < across.taps; i++)
          sum +=
            source[
              Math.min(down.starts[y]! + j, sh - 1) * sw + Math.min(across.starts[x]! + i, sw - 1)
            ]! *
            down.weights[y * down.taps + j]! *
            across.weights[x * across.taps + i]!;
      out[y * w + x] = Math.max(0, Math.min(255, Math.round(sum / 16384 / 16384)));
    }
  return out;
}

test('resampling is at most one code value from the reference, at any size down to one pixel', () => {
  const size = fc.integer({ min: 1, max: 40 });
  fc.assert(
    fc.property(
      size,
      size,
      size,
      size,
      fc.double({ min: 0, max: 0.6, noNaN: true }),
      fc.boolean(),
      fc.nat(1000),
      (sw, sh, w, h, from, mirror, seed) => {
        const source = plane(sw, sh, seed);
        const across = filterTable(sw, from * sw, (1 - from) * sw, w, mirror);
        const down = filterTable(sh, from * sh, (1 - from) * sh, h);
        const end = Math.max(sw, Math.max(...across.starts) + across.taps);
        const parts = [
          heap.put(source),
          heap.put(across.starts),
          heap.put(across.weights),
          heap.put(down.starts),
          heap.put(down.weights),
          heap.allocate(w * h),
          heap.allocate((end + 32) * 32 + down.taps * 4 + 192),
        ];
        const [s, cs, cw, rs, rw, t, scratch] = parts as [
          number,
          number,
          number,
          number,
          number,
          number,
          number,
        ];
        heap.exports.resamplePlane(
          s,
          sw,
          sw,
          sh,
          t,
          w,
          w,
          h,
          cs,
          cw,
          across.taps,
          rs,
          rw,
          down.taps,
          0,
          end,
          scratch,
        );
        const got = heap.bytes(t, w * h).slice();
        const want = reference(source, sw, sh, across, down, w, h);
        parts.forEach((p) => heap.release(p));
        expect(Math.max(...want.map((v, i) => Math.abs(v - got[i]!)))).toBeLessThanOrEqual(1);
      },
    ),
    { numRuns: 150 },
  );
});

test('blending is exact at both ends and within one code value between, with strides and odd widths', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 37 }),
      fc.integer({ min: 1, max: 9 }),
      fc.nat(255),
      fc.boolean(),
      fc.nat(999),
      (w, h, opacity, tint, seed) => {
        const [target, source, alpha] = [
          plane(w + 3, h, seed),
          plane(w, h, seed + 1),
          plane(w, h, seed + 2),
        ];
        const [t, s, a] = [heap.put(target), heap.put(source), heap.put(alpha)];
        heap.exports.blendPlane(t, w + 3, s, w, a, w, w, h, opacity, tint ? t : 0, w + 3, 1);
        const got = heap.bytes(t, target.length).slice();
        [t, s, a].forEach((p) => heap.release(p));
        for (let y = 0; y < h; y++)
          for (let x = 0; x < w + 3; x++) {
            const at = y * (w + 3) + x;
            const before = target[at]!;
            if (x >= w) {
              expect(got[at]).toBe(before);
              continue;
            }
            const weight = ((alpha[y * w + x]! * opacity) / 255 / 255) * (tint ? before / 255 : 1);
            const want = before * (1 - weight) + source[y * w + x]! * weight;
            expect(Math.abs(got[at]! - want)).toBeLessThanOrEqual(1.6);
          }
      },
    ),
  );
});

test('two pictures are mixed exactly at both ends and within half a code value between, at any length', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 90 }),
      fc.nat(255),
      fc.nat(999),
      (count, weight, seed) => {
        const [target, source] = [plane(count, 1, seed), plane(count, 1, seed + 1)];
        const [t, s] = [heap.put(target), heap.put(source)];
        heap.exports.mixPlane(t, s, count, weight);
        const got = heap.bytes(t, count).slice();
        [t, s].forEach((p) => heap.release(p));
        got.forEach((v, i) =>
          expect(
            Math.abs(v - (target[i]! * (255 - weight) + source[i]! * weight) / 255),
          ).toBeLessThanOrEqual(0.51),
        );
      },
    ),
  );
});

test('spill is taken out of the wall’s direction only', () => {
  const u = heap.put(Uint8Array.of(98, 128, 158, 108, 0, 0, 0, 0));
  const v = heap.put(Uint8Array.of(98, 128, 158, 148, 0, 0, 0, 0));
  const d = -Math.SQRT1_2;
  heap.exports.suppressSpill(u, v, 4, d, d, 0.25);
  // Wall-coloured turns grey; grey, its opposite and what lies across stay.
  expect([...heap.bytes(u, 4)]).toEqual([128, 128, 158, 108]);
  expect([...heap.bytes(v, 4)]).toEqual([128, 128, 158, 148]);
});

test('a blur keeps flat areas, its sum, and the rest of the plane', () => {
  const flat = heap.put(new Uint8Array(400).fill(255));
  const scratch = heap.allocate(blurRoom(20, 20));
  heap.exports.boxBlurPlane(flat, 20, 20, 20, 7, 3, scratch);
  expect(heap.bytes(flat, 400).every((b) => b === 255)).toBe(true);
  const spot = new Uint8Array(60 * 60);
  spot[30 * 60 + 30] = 255;
  spot[0] = 77;
  const at = heap.put(spot);
  const more = heap.allocate(blurRoom(40, 40));
  heap.exports.boxBlurPlane(at + 10 * 60 + 10, 60, 40, 40, 2, 1, more);
  const blurred = heap.bytes(at, 3600);
  expect(blurred[0]).toBe(77);
  const around = [-2, 0, 2].map((d) => blurred[30 * 60 + 30 + d]);
  expect(around[0]).toBe(around[1]);
  expect(around[1]).toBe(around[2]);
  expect(blurred[30 * 60 + 33]).toBe(0);
  expect(Math.abs(around[1]! - 255 / 25)).toBeLessThanOrEqual(1);
});

test('colours of sprites come out as BT.709 says', () => {
  const colors = [
    [255, 255, 255, 235, 128, 128],
    [0, 0, 0, 16, 128, 128],
    [255, 0, 0, 63, 102, 240],
    [0, 255, 0, 173, 42, 26],
    [0, 0, 255, 32, 240, 118],
  ];
  for (const [r, g, b, y, u, v] of colors as [number, number, number, number, number, number][]) {
    const rgba = heap.put(Uint8Array.from({ length: 16 }, (_, i) => [r, g, b, 255][i % 4]!));
    const out = heap.allocate(16);
    heap.exports.rgbaToPlanar(rgba, 2, 2, out, out + 4, out + 5, out + 6, out + 10);
    const got = heap.bytes(out, 11);
    for (const [i, want] of [
      [0, y],
      [4, u],
      [5, v],
      [6, 255],
      [10, 255],
    ] as const)
      expect(Math.abs(got[i]! - want)).toBeLessThanOrEqual(1);
  }
});

test('the module has exactly the kernels that the types name, with as many arguments', async () => {
  const { instance } = await WebAssembly.instantiate(readFileSync('public/kernels.wasm'), {
    env: { abort: () => undefined },
  });
  const found = Object.entries(instance.exports).flatMap(([name, what]) =>
    typeof what === 'function' ? [[name, what.length] as const] : [],
  );
  expect(Object.fromEntries(found)).toEqual(KERNEL_ARITIES);
  expect(instance.exports.memory).toBeInstanceOf(WebAssembly.Memory);
});

describe('memory for a scope', () => {
  test('is given back where the scope ends, also by an error, and is then found again', () => {
    const addresses = new Set<number>();
    for (let i = 0; i < 20; i++)
      try {
        using block = heap.borrow(5000);
        using other = heap.lend(new Uint8Array([1, 2, 3]));
        addresses.add(block.at).add(other.at);
        expect([...heap.bytes(other.at, 3)]).toEqual([1, 2, 3]);
        if (i % 2) throw new Error('broken off');
      } catch (error) {
        expect(String(error)).toMatch(/broken off/);
      }
    expect(addresses.size).toBe(2);
  });

  test('two that are held at once are apart', () => {
    using one = heap.borrow(1000);
    using two = heap.borrow(1000);
    expect(Math.abs(one.at - two.at)).toBeGreaterThanOrEqual(1000);
  });
});
