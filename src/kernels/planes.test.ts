import fc from 'fast-check';
import { filterTable, filterTaps, FILTER_WINDOW, squareTable } from '@/core/scale/filter';
import { parseColor, rgbToYuv, yuvToRgb } from '@/core/key/color';
import type { KernelHeap } from './heap';
import { blurRoom } from './planar';
import { boxBlurred, broughtUp, warped } from './reference';
import { apart, noisyPlane, testHeap, withPlanes } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});
const side = fc.integer({ min: 1, max: 45 });

test('weights made by the kernel are those of the reference, to the bit', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 400 }),
      fc.integer({ min: 1, max: 400 }),
      fc.double({ min: -0.2, max: 0.8, noNaN: true }),
      fc.double({ min: 0.01, max: 1.2, noNaN: true }),
      fc.boolean(),
      (length, count, from, share, mirror) => {
        const [origin, span] = [from * length, share * length];
        const want = filterTable(length, origin, span, count, mirror);
        const taps = filterTaps(span, count);
        const { lobes, steps, values } = FILTER_WINDOW;
        const planes = [
          new Uint8Array(values.buffer),
          new Uint8Array(taps * 8),
          new Uint8Array(count * 4),
          new Uint8Array(count * taps * 2),
        ];
        const out = withPlanes(heap, planes, (kernel, exact, starts, weights) =>
          heap.exports.fillFilter(
            length,
            origin,
            span,
            count,
            mirror ? 1 : 0,
            taps,
            lobes,
            steps,
            kernel!,
            exact!,
            starts!,
            weights!,
          ),
        );
        expect(taps).toBe(want.taps);
        expect([...new Int32Array(out[2]!.buffer)]).toEqual([...want.starts]);
        expect([...new Int16Array(out[3]!.buffer)]).toEqual([...want.weights]);
      },
    ),
  );
});

test('blurring eight columns at once is the same as one sample at a time', () => {
  fc.assert(
    fc.property(
      side,
      side,
      fc.oneof(fc.integer({ min: 1, max: 30 }), fc.constantFrom(60, 128, 255)),
      fc.nat(99),
      (w, h, radius, seed) => {
        const plane = noisyPlane(w, h, seed);
        const [got] = withPlanes(heap, [plane, new Uint8Array(blurRoom(w, h))], (p, scratch) =>
          heap.exports.boxBlurPlane(p!, w, w, h, radius, 1, scratch!),
        ) as [Uint8Array];
        expect(apart(got, boxBlurred(plane, w, h, radius))).toBeLessThanOrEqual(1);
      },
    ),
  );
});

test('blocks of a mosaic are flat, keep their mean, and leave the rest of the plane', () => {
  const plane = noisyPlane(30, 20, 3);
  const [got] = withPlanes(heap, [plane], (p) =>
    heap.exports.mosaicPlane(p! + 2 * 30 + 3, 30, 21, 13, 8),
  ) as [Uint8Array];
  for (let y = 0; y < 20; y++)
    for (let x = 0; x < 30; x++) {
      const inside = x >= 3 && x < 24 && y >= 2 && y < 15;
      if (!inside) {
        expect(got[y * 30 + x]).toBe(plane[y * 30 + x]);
        continue;
      }
      const [left, top] = [3 + Math.floor((x - 3) / 8) * 8, 2 + Math.floor((y - 2) / 8) * 8];
      let [sum, count] = [0, 0];
      for (let v = top; v < Math.min(15, top + 8); v++)
        for (let u = left; u < Math.min(24, left + 8); u++)
          [sum, count] = [sum + plane[v * 30 + u]!, count + 1];
      expect(Math.abs(got[y * 30 + x]! - sum / count)).toBeLessThanOrEqual(0.5);
    }
});

test('turning is at most one code value from the reference, edges and single pixels too', () => {
  const table = squareTable(64);
  fc.assert(
    fc.property(
      side,
      side,
      side,
      side,
      fc.double({ min: -3.2, max: 3.2, noNaN: true }),
      fc.nat(99),
      (sw, sh, w, h, angle, seed) => {
        const plane = noisyPlane(sw, sh, seed);
        const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
        const planes = [plane, new Uint8Array(w * h), new Uint8Array(table.buffer.slice(0))];
        const [, got] = withPlanes(heap, planes, (s, t, weights) =>
          heap.exports.warpPlane(
            s!,
            sw,
            sw,
            sh,
            t!,
            w,
            w,
            h,
            cos,
            sin,
            3.3,
            -sin,
            cos,
            1.7,
            weights!,
          ),
        ) as [Uint8Array, Uint8Array];
        const want = Array.from({ length: w * h }, (_, i) => {
          const [x, y] = [(i % w) + 0.5, Math.floor(i / w) + 0.5];
          return warped(
            plane,
            sw,
            sh,
            cos * x + sin * y + 3.3,
            -sin * x + cos * y + 1.7,
            table,
            64,
          );
        });
        expect(apart(got, want)).toBeLessThanOrEqual(1);
      },
    ),
    { numRuns: 60 },
  );
});

test('an affine mapping that is the identity copies, and a quarter turn moves every sample', () => {
  const table = squareTable(64);
  const plane = noisyPlane(20, 20, 5);
  const warp = (...m: [number, number, number, number, number, number]) =>
    withPlanes(
      heap,
      [plane, new Uint8Array(400), new Uint8Array(table.buffer.slice(0))],
      (s, t, weights) => heap.exports.warpPlane(s!, 20, 20, 20, t!, 20, 20, 20, ...m, weights!),
    )[1]!;
  expect([...warp(1, 0, 0, 0, 1, 0)]).toEqual([...plane]);
  const turned = warp(0, 1, 0, -1, 0, 20);
  for (let y = 0; y < 20; y++)
    for (let x = 0; x < 20; x++) expect(turned[y * 20 + x]).toBe(plane[(19 - x) * 20 + y]);
});

test('a picture for display has the colours of its planes, chroma between its samples in a straight line', () => {
  fc.assert(
    fc.property(side, side, fc.nat(99), (w, h, seed) => {
      const [cw, ch] = [(w + 1) >> 1, (h + 1) >> 1];
      const y = noisyPlane(w, h, seed).map((v) => 60 + (v >> 1));
      const [u, v] = [1, 2].map((k) => noisyPlane(cw, ch, seed + k).map((n) => 110 + (n >> 3))) as [
        Uint8Array,
        Uint8Array,
      ];
      const out = withPlanes(heap, [y, u, v, new Uint8Array(w * h * 4)], (py, pu, pv, rgba) =>
        heap.exports.planarToRgba(py!, pu!, pv!, w, h, rgba!),
      )[3]!;
      const want = Array.from({ length: w * h }, (_, i) => {
        const at = (plane: Uint8Array) => broughtUp(plane, w, h, i % w, Math.floor(i / w));
        return [...yuvToRgb([y[i]!, at(u), at(v)]), 255];
      });
      expect(apart(out, want.flat())).toBeLessThanOrEqual(1);
    }),
    { numRuns: 40 },
  );
  const [y, u, v] = rgbToYuv(parseColor('#3d6785'));
  const one = withPlanes(
    heap,
    [Uint8Array.of(y), Uint8Array.of(u), Uint8Array.of(v), new Uint8Array(4)],
    (py, pu, pv, rgba) => heap.exports.planarToRgba(py!, pu!, pv!, 1, 1, rgba!),
  )[3]!;
  expect(apart(one, [0x3d, 0x67, 0x85, 255])).toBeLessThanOrEqual(2);
});

test('exactly the tiles that differ are marked, whether two pictures are there or rows come in', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 90 }),
      side,
      fc.array(fc.nat(5000), { maxLength: 6 }),
      (w, h, places) => {
        const a = noisyPlane(w, h, 1);
        const b = a.slice();
        for (const place of places) b[place % b.length]! ^= 1;
        const [across, down] = [Math.ceil(w / 16), Math.ceil(h / 8)];
        let count = 0;
        const marks = withPlanes(heap, [a, b, new Uint8Array(across * down)], (p, q, m) => {
          count = heap.exports.markChanges(p!, q!, w, w, h, 16, 8, m!);
        })[2]!;
        const want = new Uint8Array(across * down);
        a.forEach((value, i) => {
          if (value !== b[i]) want[Math.floor(i / w / 8) * across + Math.floor((i % w) / 16)] = 1;
        });
        expect([...marks]).toEqual([...want]);
        expect(count).toBe(want.reduce((s, n) => s + n, 0));
        const [, after, marked] = withPlanes(
          heap,
          [b, a, new Uint8Array(across * down)],
          (q, p, m) => {
            for (let y = 0; y < h; y += 8)
              heap.exports.takeRows(
                q! + y * w,
                p! + y * w,
                w,
                Math.min(8, h - y),
                16,
                m! + (y / 8) * across,
              );
          },
        );
        expect([...after!]).toEqual([...b]);
        expect([...marked!]).toEqual([...want]);
      },
    ),
  );
});

test('sprites: luma and opacity of each pixel, chroma as the opacity-weighted mean around its place', () => {
  // Drawings with clear stretches, edges and solid parts, as overlays have them.
  const drawing = (w: number, h: number, seed: number) =>
    Uint8Array.from({ length: w * h * 4 }, (_, i) => {
      const pixel = i >> 2;
      if (i % 4 < 3) return Math.imul(i + seed * 31, 2654435761) >>> 24;
      const run = Math.sin((pixel % w) / 7 + Math.floor(pixel / w) / 5 + seed);
      return run < 0 ? 0 : run > 0.6 ? 255 : Math.round(run * 400);
    });
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 12 }),
      fc.nat(999),
      (cw, ch, seed) => {
        const [w, h] = [cw * 2, ch * 2];
        const rgba = drawing(w, h, seed);
        const sizes = [w * h, w * h, cw * ch, cw * ch, cw * ch];
        const [, y, a, u, v, ca] = withPlanes(
          heap,
          [rgba, ...sizes.map((n) => new Uint8Array(n))],
          (from, py, pa, pu, pv, pca) =>
            heap.exports.rgbaToPlanar(from!, w, h, py!, pu!, pv!, pa!, pca!),
        ) as [Uint8Array, Uint8Array, Uint8Array, Uint8Array, Uint8Array, Uint8Array];
        const light = (i: number) =>
          16 + ((rgba[i]! * 0.2126 + rgba[i + 1]! * 0.7152 + rgba[i + 2]! * 0.0722) * 219) / 255;
        expect(
          apart(
            y,
            Float64Array.from(y, (_, i) => light(i * 4)),
          ),
        ).toBeLessThan(0.6);
        expect([...a]).toEqual([...Uint8Array.from(a, (_, i) => rgba[i * 4 + 3]!)]);
        let worst = 0;
        for (let i = 0; i < cw * ch; i++) {
          const [x, row] = [(i % cw) * 2, Math.floor(i / cw) * 2];
          const sum = [0, 0, 0, 0];
          for (const dy of [0, 1])
            for (const dx of [-1, 0, 1]) {
              const at = ((row + dy) * w + Math.max(0, x + dx)) * 4;
              const cover = rgba[at + 3]! * (dx ? 1 : 2);
              [0, 1, 2].forEach((c) => (sum[c]! += rgba[at + c]! * cover));
              sum[3]! += cover;
            }
          const [r, g, b] = sum.slice(0, 3).map((n) => (sum[3] ? n / sum[3] : 0)) as [
            number,
            number,
            number,
          ];
          const luma = r * 0.2126 + g * 0.7152 + b * 0.0722;
          const want = [
            sum[3]! / 8,
            128 + (((b - luma) / 1.8556) * 224) / 255,
            128 + (((r - luma) / 1.5748) * 224) / 255,
          ];
          worst = Math.max(worst, apart([ca[i]!, u[i]!, v[i]!], want));
        }
        expect(worst).toBeLessThan(0.6);
      },
    ),
  );
});

test('blocks of memory keep apart, and sizes that always change need no more of it', async () => {
  const own = await testHeap();
  const held: { at: number; size: number }[] = [];
  let settled = 0;
  for (let i = 0; i < 3000; i++) {
    const size = 1 + (Math.imul(i + 1, 2654435761) >>> 12);
    held.push({ at: own.allocate(size), size });
    if (held.length > 20) own.release(held.shift()!.at);
    if (i === 1500) settled = own.exports.memory.buffer.byteLength;
    const { at } = held[held.length - 1]!;
    expect(
      held.slice(0, -1).filter((other) => at < other.at + other.size && other.at < at + size),
    ).toEqual([]);
  }
  expect(own.exports.memory.buffer.byteLength).toBeLessThan(settled * 1.25);
});
