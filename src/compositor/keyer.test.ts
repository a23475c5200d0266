import fc from 'fast-check';
import { DEFAULT_KEY } from '@/core/edit/settings';
import { rgbToYuv, parseColor } from '@/core/key/color';
import type { FootageKey, WallMap } from '@/core/project/model';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame, type Plane } from '@/kernels/planar';
import { noisyPlane, patchyPlane, testHeap } from '@/kernels/testing';
import { releaseInset, type Inset } from './inset';
import { Keyer } from './keyer';
import { Resampler } from './resampler';
import { wholeVideo } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

const W = 256;
const H = 160;
const COLOR = '#2f9a4b';
const [, WALL_U, WALL_V] = rgbToYuv(parseColor(COLOR)).map(Math.round) as [number, number, number];

/** A wall with a little noise, and patches of other colours on it. */
function scene(seed: number) {
  const frame = allocateFrame(heap, W, H);
  const bytes = frameBytes(heap, frame);
  const quarter = (W * H) / 4;
  const person = patchyPlane(W / 2, H / 2, seed);
  bytes.set(noisyPlane(W, H, seed).map((n) => 90 + (n >> 2)));
  [WALL_U, WALL_V].forEach((wall, i) => {
    const noise = noisyPlane(W / 2, H / 2, seed + 1 + i);
    const plane = noise.map((n, at) =>
      Math.round(wall + (n >> 6) + ((150 - wall) * person[at]!) / 255),
    );
    bytes.set(plane, W * H + quarter * i);
  });
  return frame;
}

const unevenWall: WallMap = {
  columns: 3,
  rows: 2,
  y: [120, 110, 100, 118, 108, 98],
  u: [WALL_U, WALL_U + 2, WALL_U + 4, WALL_U + 1, WALL_U + 2, WALL_U + 5],
  v: [WALL_V, WALL_V + 1, WALL_V + 3, WALL_V, WALL_V + 2, WALL_V + 3],
};

const PLANES = ['y', 'alpha', 'u', 'v', 'chromaAlpha'] as const;
const rows = (plane: Plane) => {
  const bytes = heap.bytes(plane.at, plane.stride * plane.height);
  return (x: number, y: number) => bytes[y * plane.stride + x]!;
};

/**
 * Counts samples of a rectangle, in luma samples of the whole picture, that differ between a part
 * and the whole.
 */
function differing(
  part: Inset,
  at: { x: number; y: number },
  whole: Inset,
  seen: { x: number; y: number; right: number; bottom: number },
) {
  let count = 0;
  for (const name of PLANES) {
    const by = name === 'y' || name === 'alpha' ? 1 : 2;
    const [own, all] = [rows(part[name]), rows(whole[name])];
    for (let y = Math.ceil(seen.y / by); y < Math.floor(seen.bottom / by); y++)
      for (let x = Math.ceil(seen.x / by); x < Math.floor(seen.right / by); x++)
        if (own(x - at.x / by, y - at.y / by) !== all(x, y)) count++;
  }
  return count;
}

test('keying what is seen gives there what keying the whole picture gives, to the bit', () => {
  let parts = 0;
  fc.assert(
    fc.property(
      fc.record({
        x: fc.double({ min: 0, max: 150, noNaN: true }),
        y: fc.double({ min: 0, max: 90, noNaN: true }),
        width: fc.double({ min: 8, max: 100, noNaN: true }),
        height: fc.double({ min: 8, max: 60, noNaN: true }),
      }),
      fc.integer({ min: -6, max: 6 }),
      fc.integer({ min: 0, max: 12 }),
      fc.boolean(),
      fc.boolean(),
      // The picture may be a small copy of the recording.
      fc.constantFrom(1, 2),
      fc.nat(99),
      (area, choke, feather, garbage, uneven, by, seed) => {
        const footage = { width: W * by, height: H * by };
        const key: FootageKey = {
          ...DEFAULT_KEY,
          footageId: 'f',
          color: COLOR,
          wall: uneven ? unevenWall : null,
          choke,
          feather,
          garbage: garbage ? { x: 60 * by, y: 0, width: 120 * by, height: footage.height } : null,
        };
        const scaled = {
          x: area.x * by,
          y: area.y * by,
          width: area.width * by,
          height: area.height * by,
        };
        const picture = scene(seed);
        const source = { picture, part: null, before: null, marks: null };
        const keyer = new Keyer(heap, new Resampler(heap));
        const layer = wholeVideo(footage, {
          key,
          source: scaled,
          destination: { x: 0, y: 0, width: 64, height: 48 },
        });
        const own = keyer.key(key, layer, source, null);
        const whole = keyer.key(key, wholeVideo(footage, { key }), source, null);
        expect(whole.part).toBeNull();
        if (own.part) {
          parts++;
          expect(own.inset.y.width * own.inset.y.height).toBeLessThan(W * H);
          const seen = {
            x: area.x,
            y: area.y,
            right: area.x + area.width,
            bottom: area.y + area.height,
          };
          expect(
            differing(own.inset, { x: own.part.x / by, y: own.part.y / by }, whole.inset, seen),
          ).toBe(0);
        }
        for (const { inset } of [own, whole]) releaseInset(heap, inset);
        releaseFrame(heap, picture);
      },
    ),
    { numRuns: 60 },
  );
  expect(parts).toBeGreaterThan(10);
});

test('a picture that is a part already is cut further, and says so in the recording’s pixels', () => {
  const picture = scene(5);
  const key: FootageKey = { ...DEFAULT_KEY, footageId: 'f', color: COLOR };
  const part = { x: 400, y: 200, width: W, height: H };
  const layer = wholeVideo(
    { width: 1280, height: 720 },
    { key, source: { x: 420, y: 210, width: 60, height: 40 } },
  );
  const keyer = new Keyer(heap, new Resampler(heap));
  const own = keyer.key(key, layer, { picture, part, before: null, marks: null }, null);
  expect(own.part!.x).toBeGreaterThanOrEqual(part.x);
  expect(own.part!.x).toBeLessThan(420);
  expect(own.part!.x + own.part!.width).toBeGreaterThan(480);
  expect(own.part!.x + own.part!.width).toBeLessThan(part.x + part.width);
  expect([own.part!.x % 2, own.part!.y % 2, own.part!.width % 2, own.part!.height % 2]).toEqual([
    0, 0, 0, 0,
  ]);
  releaseInset(heap, own.inset);
  releaseFrame(heap, picture);
});
