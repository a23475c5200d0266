import { noisyPlane, testHeap, withPlanes } from './testing';
import type { KernelHeap } from './heap';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

test('changes are counted by tiles, above a floor', () => {
  const [w, h, stride] = [48, 32, 64];
  const a = noisyPlane(stride, h, 1);
  const b = a.map((value, i) => {
    // The tile in the middle above is the same.
    if ((i % stride) >> 4 === 1 && i < 16 * stride) return value;
    return i % 7 === 0 ? (value + 9) & 255 : i % 5 === 0 ? value ^ 64 : value;
  });
  for (const least of [0, 8, 9, 63, 64, 200]) {
    let busy = -1;
    const [, , counts] = withPlanes(heap, [a, b, new Uint8Array(12)], (p, q, into) => {
      busy = heap.exports.countChanges(p!, stride, q!, stride, w, h, least, into!);
    });
    const want = new Array<number>(6).fill(0);
    const differs = new Array<number>(6).fill(0);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const [apart, tile] = [
          Math.abs(a[y * stride + x]! - b[y * stride + x]!),
          (y >> 4) * 3 + (x >> 4),
        ];
        if (apart > least) want[tile]! += 1;
        if (apart) differs[tile] = 1;
      }
    expect([...counts!]).toEqual([...want.map((n) => Math.min(255, n)), ...differs]);
    expect(busy).toBe(want.filter(Boolean).length);
  }
});

test('the places where a look fits, and how well', () => {
  const [stride, h] = [96, 60];
  const plane = noisyPlane(stride + 40, h, 3).subarray(0, stride * h);
  const points = Array.from({ length: 30 }, (_, i) => ({ x: (i * 5) % 13, y: (i * 3) % 11 }));
  const [atX, atY] = [37, 21];
  const table = new Int32Array(
    points.flatMap(({ x, y }, i) => {
      const value = plane[(atY + y) * stride + atX + x]!;
      return [y * stride + x, value | (Math.min(255, value + (i % 3)) << 8)];
    }),
  );
  const [columns, rows, clip] = [48, 40, 40];
  const run = (limit: number, most: number) => {
    let count = 0;
    const [, , hits] = withPlanes(
      heap,
      [
        new Uint8Array([...plane, ...new Uint8Array(64)]),
        new Uint8Array(table.buffer),
        new Uint8Array(most * 8),
      ],
      (p, q, into) => {
        const [n, at] = [points.length, into!];
        count = heap.exports.matchLook(p!, stride, columns, rows, q!, n, clip, limit, at, most);
      },
    );
    return [...new Int32Array(hits!.slice().buffer)].slice(0, count * 2);
  };
  const sumAt = (place: number) =>
    points.reduce((sum, point, i) => {
      const [x, y] = [place % columns, Math.floor(place / columns)];
      const sample = plane[(y + point.y) * stride + x + point.x]!;
      const [low, high] = [table[i * 2 + 1]! & 255, table[i * 2 + 1]! >> 8];
      return sum + Math.min(clip, Math.max(0, low - sample, sample - high));
    }, 0);
  const places = Array.from(
    { length: columns * rows },
    (_, place) => [place, sumAt(place)] as const,
  );
  for (const limit of [0, 500, 900, 40_000])
    expect(run(limit, 4000)).toEqual(places.filter(([, sum]) => sum <= limit).flat());
  expect(run(0, 4000).slice(0, 2)).toEqual([atY * columns + atX, 0]);
  expect(run(40_000, 5)).toEqual(places.slice(0, 5).flat());
});
