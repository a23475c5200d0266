import fc from 'fast-check';
import type { Rect } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes } from '@/kernels/planar';
import { doubledPlane, noisyPlane, testHeap } from '@/kernels/testing';
import { CrispText } from './crisp';
import type { SourceFrame } from './source-frame';

const size = { width: 200, height: 120 };
const whole = { x: 0, y: 0, ...size };
let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

/** A picture of the luma, or of a part of it as decoders cut it out. */
function pictureOf(luma: Uint8Array, part: Rect | null = null): SourceFrame {
  const { x, y, width, height } = part ?? whole;
  const picture = allocateFrame(heap, width, height);
  const bytes = frameBytes(heap, picture);
  for (let row = 0; row < height; row++)
    bytes.set(luma.subarray((y + row) * size.width + x).subarray(0, width), row * width);
  return { picture, part, before: null, marks: null };
}

/** What is in the doubled plane at a part of the source. */
function read(crisp: CrispText, source: SourceFrame, wanted: Rect): Uint8Array {
  const { plane, x, y } = crisp.double('f', source, size, wanted);
  const rows = Array.from({ length: wanted.height * 2 }, (_, row) =>
    heap.bytes(
      plane.at + (2 * (y + wanted.y) + row) * plane.stride + 2 * (x + wanted.x),
      2 * wanted.width,
    ),
  );
  return Uint8Array.from(rows.flatMap((row) => [...row]));
}

const cut = (doubled: Uint8Array, { x, y, width, height }: Rect): Uint8Array =>
  Uint8Array.from({ length: width * height * 4 }, (_, i) => {
    const [column, row] = [i % (2 * width), Math.floor(i / (2 * width))];
    return doubled[(2 * y + row) * size.width * 2 + 2 * x + column]!;
  });

const doubled = (luma: Uint8Array, rebuilt: boolean) =>
  doubledPlane(heap, luma, size.width, rebuilt, 64);

const page = (seed: number) =>
  noisyPlane(size.width, size.height, seed).map((n, i) => ((i >> 2) % 9 ? 200 : n & 127));

test('what is kept is what would be made anew, whatever changes and wherever one looks', () => {
  const rect = fc
    .record({ x: fc.nat(150), y: fc.nat(80), width: fc.nat(49), height: fc.nat(39) })
    .map(({ x, y, width, height }) => ({ x, y, width: width + 1, height: height + 1 }));
  const step = fc.record({
    spots: fc.array(
      fc.tuple(fc.nat(size.width * size.height - 1), fc.constantFrom(1, 4, 32, 128)),
      { maxLength: 4 },
    ),
    wanted: rect,
  });
  fc.assert(
    fc.property(fc.array(step, { minLength: 2, maxLength: 5 }), fc.boolean(), (steps, parts) => {
      const crisp = new CrispText(heap);
      const luma = page(1);
      for (const { spots, wanted } of steps) {
        for (const [spot, bit] of spots) luma[spot] = luma[spot]! ^ bit;
        const made = doubled(luma, true);
        crisp.begin(Infinity, false);
        const part = parts && {
          x: Math.max(0, wanted.x - 16),
          y: Math.max(0, wanted.y - 16),
          width: Math.min(size.width, wanted.x + wanted.width + 16) - Math.max(0, wanted.x - 16),
          height: Math.min(size.height, wanted.y + wanted.height + 16) - Math.max(0, wanted.y - 16),
        };
        const inside = part ? { ...wanted, x: wanted.x - part.x, y: wanted.y - part.y } : wanted;
        expect(read(crisp, pictureOf(luma, part || null), inside)).toEqual(cut(made, wanted));
      }
    }),
    { numRuns: 40 },
  );
});

test('noise of a codec changes nothing; a small change anywhere does', () => {
  // Letters at the left, nothing at the right.
  const luma = Uint8Array.from({ length: size.width * size.height }, (_, i) =>
    i % size.width < 96 && (i >> 1) % 3 === 0 ? 40 : 220,
  );
  const noise = luma.map((n, i) => {
    const strength = i % size.width < 96 ? 30 : 5;
    return n + (i % 2 ? strength : -strength);
  });
  const sharp = doubled(luma, true);
  const crisp = new CrispText(heap);
  crisp.begin(Infinity, true);
  expect(read(crisp, pictureOf(luma), whole)).toEqual(sharp);
  const { turn } = crisp.double('f', pictureOf(noise), size, whole);
  expect(read(crisp, pictureOf(noise), whole)).toEqual(sharp);
  const at = (x: number, y: number) => y * size.width + x;
  const changes: ((to: Uint8Array) => void)[] = [
    // A stroke less, a faint dot, and a faint shade.
    (to) => (to[at(30, 20)] = 260 - to[at(30, 20)]!),
    (to) => (to[at(150, 20)] = 205),
    (to) => {
      for (let i = 0; i < 64; i++) to[at(160 + (i % 8), 40 + (i >> 3))]! -= 4;
    },
  ];
  for (const change of changes) {
    const to = luma.slice();
    change(to);
    expect(crisp.double('f', pictureOf(to), size, whole).turn).toBeGreaterThan(turn);
    const kept = new CrispText(heap);
    kept.begin(Infinity, true);
    read(kept, pictureOf(luma), whole);
    expect(read(kept, pictureOf(to), whole)).toEqual(doubled(to, true));
  }
});

test('what is hardly more than noise is come up to in small steps', () => {
  const luma = Uint8Array.from({ length: size.width * size.height }, (_, i) =>
    (i >> 1) % 3 === 0 ? 80 : 190,
  );
  const spot = { x: 24, y: 8, width: 8, height: 8 };
  const other = luma.map((n, i) => {
    const [x, y] = [i % size.width, Math.floor(i / size.width)];
    const within = x >= 24 && x < 32 && y >= 8 && y < 16;
    return within ? n + ((x + y) % 2 ? 45 : -45) : n;
  });
  const crisp = new CrispText(heap);
  let before = cut(doubled(luma, true), spot);
  const target = cut(doubled(other, true), spot);
  const apartOf = (a: Uint8Array) => Math.max(...a.map((n, i) => Math.abs(n - target[i]!)));
  crisp.begin(Infinity, true);
  expect(read(crisp, pictureOf(luma), spot)).toEqual(before);
  const first = apartOf(before);
  for (let i = 0; i < 5; i++) {
    crisp.begin(Infinity, true);
    const now = read(crisp, pictureOf(other), spot);
    const step = Math.max(...now.map((n, k) => Math.abs(n - before[k]!)));
    expect(step).toBeLessThan(first * 0.75);
    before = now;
  }
  expect(apartOf(before)).toBeLessThan(first * 0.75);
});

test('what moves is left to the plain filter, and rebuilt once it rests', () => {
  const crisp = new CrispText(heap);
  const luma = page(3);
  const sharp = () => doubled(luma, true);
  const soft = () => doubled(luma, false);
  crisp.begin(Infinity, true);
  expect(read(crisp, pictureOf(luma), whole)).toEqual(sharp());
  const spot = { x: 66, y: 34, width: 8, height: 8 };
  const moved = () => {
    for (let y = 32; y < 64; y++)
      for (let x = 64; x < 128; x++) luma[y * size.width + x] = luma[y * size.width + x]! ^ 64;
    crisp.begin(Infinity, true);
    return read(crisp, pictureOf(luma), spot);
  };
  expect(moved()).toEqual(cut(sharp(), spot));
  moved();
  expect(moved()).toEqual(cut(soft(), spot));
  const rest = Array.from({ length: 12 }, () => {
    crisp.begin(Infinity, true);
    return read(crisp, pictureOf(luma), whole);
  });
  expect(rest[0]).not.toEqual(sharp());
  expect(rest[11]).toEqual(sharp());
});

test('with little time something is left, until pictures of the same have made it good', () => {
  const crisp = new CrispText(heap);
  const luma = page(4);
  const source = pictureOf(luma);
  const sharp = doubled(luma, true);
  let tries = 0;
  let made: Uint8Array;
  do {
    crisp.begin(3000, false);
    made = read(crisp, source, whole);
    if (crisp.unfinished) expect(made).not.toEqual(sharp);
  } while (crisp.unfinished && ++tries < 20);
  expect(tries).toBeGreaterThan(1);
  expect(made).toEqual(sharp);
});

test('what will be seen is made ahead with the time that is left, and follows what changes', () => {
  const crisp = new CrispText(heap);
  const luma = page(5);
  const [left, right] = [
    { x: 0, y: 0, width: 60, height: 60 },
    { x: 100, y: 30, width: 90, height: 80 },
  ];
  for (let frame = 0; frame < 20; frame++) {
    // Something at the edge of both changes now and then.
    if (frame === 3 || frame === 7) luma[40 * size.width + 90] = luma[40 * size.width + 90]! ^ 128;
    const source = pictureOf(luma);
    crisp.begin(frame ? 6000 : Infinity, true);
    expect(read(crisp, source, left)).toEqual(cut(doubled(luma, true), left));
    expect(crisp.unfinished).toBe(false);
    crisp.double('f', source, size, right, true);
    expect(crisp.unfinished).toBe(false);
  }
  // Now that it is seen there is nothing left to do.
  crisp.begin(1, true);
  expect(read(crisp, pictureOf(luma), right)).toEqual(cut(doubled(luma, true), right));
  expect(crisp.unfinished).toBe(false);
});
