import fc from 'fast-check';
import { CRISP_WEIGHTS } from '@/core/crisp/weights';
import { readModel } from '@/core/crisp/model';
import { crispReference } from './crisp-reference';
import type { KernelHeap } from './heap';
import { doubledPlane, noisyPlane, testHeap, withPlanes } from './testing';

const layers = readModel(CRISP_WEIGHTS);
let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

/** Dark strokes on light, as letters have them. */
const strokes = (width: number, height: number): Uint8Array =>
  Uint8Array.from({ length: width * height }, (_, i) =>
    (i % width) % 7 === 3 || Math.floor(i / width) % 9 === 4 ? 30 : 230,
  );

/** One colour but for a few spots. */
const patches = (width: number, height: number, seed: number): Uint8Array =>
  noisyPlane(width, height, seed).map((n, i) => (n > 253 ? 30 : i % width > 40 ? 100 : 200));

test('luma is doubled as the reference says, to the bit, in tiles of any size', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 60 }),
      fc.integer({ min: 1, max: 40 }),
      fc.constantFrom(8, 16, 24),
      fc.nat(1000),
      fc.constantFrom(noisyPlane, strokes, patches),
      (width, height, tile, seed, make) => {
        const plane = make(width, height, seed);
        expect(doubledPlane(heap, plane, width, true, tile)).toEqual(
          crispReference(layers, plane, width, height),
        );
      },
    ),
    { numRuns: 40 },
  );
});

test('without a model it is Catmull-Rom', () => {
  const plane = noisyPlane(31, 17, 5);
  const last = layers.length - 1;
  const silent = layers.map((layer, i) =>
    i < last ? layer : { ...layer, biases: new Int32Array(4), weights: layer.weights.map(() => 0) },
  );
  expect(doubledPlane(heap, plane, 31, false, 8)).toEqual(crispReference(silent, plane, 31, 17));
});

test('one colour stays that colour, whichever it is', () => {
  for (const grey of [0, 16, 90, 126, 180, 235, 255]) {
    const plane = new Uint8Array(12 * 12).fill(grey);
    const made = doubledPlane(heap, plane, 12, true, 16);
    expect(made.every((value) => value === grey)).toBe(true);
  }
});

test('a model with too few bytes or too many is told', () => {
  expect(() => readModel(btoa('short'))).toThrow(RangeError);
  expect(() => readModel(btoa(`${atob(CRISP_WEIGHTS)}more`))).toThrow(RangeError);
});

describe('what is no clean text is made no worse', () => {
  const [width, height] = [64, 48];
  const each = (value: (x: number, y: number) => number) =>
    Uint8Array.from({ length: width * height }, (_, i) => value(i % width, Math.floor(i / width)));
  const letters = (x: number, y: number) => (x % 11 < 2 || y % 13 < 2 ? 40 : 220);
  /** A picture that is made of letters drawn at half the size. */
  const enlarged = each((x, y) => {
    const [u, v] = [x / 2 - 0.25, y / 2 - 0.25];
    const [left, top] = [Math.floor(u), Math.floor(v)];
    const row = (at: number) =>
      letters(left, at) * (1 - (u - left)) + letters(left + 1, at) * (u - left);
    return Math.round(row(top) * (1 - (v - top)) + row(top + 1) * (v - top));
  });
  const pictures: readonly (readonly [string, Uint8Array, more: number])[] = [
    ['enlarged before', enlarged, 4],
    ['a slope', each((x, y) => 20 + x * 3 + (y >> 1)), 4],
    ['noise', noisyPlane(width, height, 4), 20],
    ['the lines of two fields', each((x, y) => letters(x + (y % 2) * 3, y)), 20],
    ['waves', each((x, y) => 128 + Math.round(60 * Math.sin(x / 3) * Math.cos(y / 4))), 4],
  ];

  test.each(pictures)('%s: it rings hardly further than the plain filter', (_name, plane, more) => {
    const beyond = (made: Uint8Array): number => {
      let most = 0;
      for (let y = 8; y < 2 * height - 8; y++)
        for (let x = 8; x < 2 * width - 8; x++) {
          let [low, high] = [255, 0];
          for (let v = (y >> 1) - 2; v <= (y >> 1) + 2; v++)
            for (let u = (x >> 1) - 2; u <= (x >> 1) + 2; u++) {
              low = Math.min(low, plane[v * width + u]!);
              high = Math.max(high, plane[v * width + u]!);
            }
          const value = made[y * 2 * width + x]!;
          most = Math.max(most, low - value, value - high);
        }
      return most;
    };
    const plain = beyond(doubledPlane(heap, plane, width, false, 32));
    const rebuilt = beyond(doubledPlane(heap, plane, width, true, 32));
    expect(rebuilt).toBeLessThanOrEqual(plain + more);
  });
});

describe('a steady copy', () => {
  const [stride, tile, across] = [70, { width: 32, height: 16 }, 3];
  const height = 40;

  /** What `steadyPlane` says of a block, sample by sample: noise, much of it, or a change. */
  function judge(
    now: Uint8Array,
    copy: Uint8Array,
    x: number,
    y: number,
    right: number,
  ): 0 | 1 | 2 {
    let [most, sum, low, high] = [0, 0, 255, 0];
    for (let v = y; v < Math.min(y + 8, height); v++)
      for (let u = x; u < Math.min(x + 8, right); u++) {
        const [p, q] = [now[v * stride + u]!, copy[v * stride + u]!];
        most = Math.max(most, Math.abs(p - q));
        sum += p - q;
        low = Math.min(low, q);
        high = Math.max(high, q);
      }
    const span = high - low;
    if (most <= Math.max(8, span >> 2) && 2 * Math.abs(sum) <= Math.max(160, 3 * span)) return 0;
    return most <= span >> 1 && Math.abs(sum) <= 3 * span ? 1 : 2;
  }

  test('takes over what is no noise, with what is around it, and says where that was', () => {
    fc.assert(
      fc.property(
        fc.nat(1000),
        fc.array(fc.tuple(fc.nat(stride * height - 1), fc.integer({ min: -150, max: 150 })), {
          maxLength: 12,
        }),
        fc.boolean(),
        (seed, spots, flat) => {
          const copy = noisyPlane(stride, height, seed).map((n) => (flat ? 100 : n));
          const now = copy.slice();
          for (const [at, by] of spots) now[at] = Math.min(255, Math.max(0, now[at]! + by));
          const states = new Uint8Array(across * 3).fill(1);
          states[4] = 0;
          const [, after, newStates, boxes] = withPlanes(
            heap,
            [now, copy, states, new Uint8Array(across * 12)],
            (a, b, c, d) =>
              heap.exports.steadyPlane(
                ...([a!, stride, stride, height, 0, 0, b!, stride, height] as const),
                ...([tile.width, tile.height, across, 0, 0, across, 3, 0, c!, d!] as const),
              ),
          ) as [Uint8Array, Uint8Array, Uint8Array, Uint8Array];
          const want = copy.slice();
          for (let i = 0; i < across * 3; i++) {
            const [x0, y0] = [(i % across) * tile.width, Math.floor(i / across) * tile.height];
            const [x1, y1] = [
              Math.min(stride, x0 + tile.width),
              Math.min(height, y0 + tile.height),
            ];
            const bad: [number, number][] = [];
            let eased = true;
            for (let y = y0; y < y1; y += 8)
              for (let x = x0; x < x1; x += 8) {
                const what = judge(now, copy, x, y, x1);
                if (what) bad.push([x, y]);
                if (what === 2) eased = false;
              }
            const whole = i === 4;
            const box = whole
              ? [x0, y0, x1, y1]
              : [
                  Math.max(x0, Math.min(...bad.map(([x]) => x)) - 8),
                  Math.max(y0, Math.min(...bad.map(([, y]) => y)) - 8),
                  Math.min(x1, Math.max(...bad.map(([x]) => x)) + 16),
                  Math.min(y1, Math.max(...bad.map(([, y]) => y)) + 16),
                ];
            expect(newStates[i]).toBe(whole ? 3 : !bad.length ? 1 : eased ? 4 : 2);
            if (!whole && !bad.length) continue;
            for (let y = box[1]!; y < box[3]!; y++)
              for (let x = box[0]!; x < box[2]!; x++) {
                const place = y * stride + x;
                want[place] = eased && !whole ? (now[place]! + copy[place]! + 1) >> 1 : now[place]!;
              }
            if (whole) continue;
            const told = [...boxes.subarray(i * 4, i * 4 + 4)];
            const blocks = [box[0]! - x0, box[1]! - y0, box[2]! - x0, box[3]! - y0];
            expect(told).toEqual(blocks.map((n) => Math.ceil(n / 8)));
          }
          expect(after).toEqual(want);
        },
      ),
    );
  });

  test('of a part leaves what lies beside it', () => {
    const copy = noisyPlane(stride, height, 1);
    const part = { x: 10, y: 6, width: 40, height: 20 };
    // Hardly anything differs; but who knows what it is compared with.
    const now = Uint8Array.from({ length: part.width * part.height }, (_, i) => {
      const [x, y] = [i % part.width, Math.floor(i / part.width)];
      return copy[(part.y + y) * stride + part.x + x]! ^ 1;
    });
    const [, after] = withPlanes(
      heap,
      [now, copy, new Uint8Array(across * 3).fill(1), new Uint8Array(across * 12)],
      (a, b, c, d) =>
        heap.exports.steadyPlane(
          ...([
            a!,
            part.width,
            part.width,
            part.height,
            part.x,
            part.y,
            b!,
            stride,
            height,
          ] as const),
          ...([tile.width, tile.height, across, 0, 0, across, 3, 0, c!, d!] as const),
        ),
    );
    const want = copy.slice();
    for (let y = 0; y < part.height; y++)
      want.set(now.subarray(y * part.width, (y + 1) * part.width), (part.y + y) * stride + part.x);
    expect(after).toEqual(want);
  });
});
