import fc from 'fast-check';
import type { DrawingLayer, Reflection, RegionLayer, VideoLayer } from '@/core/frame/plan';
import { reflectedCovers } from '@/core/frame/reflected-covers';
import type { InOutput } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame, type PlanarFrame } from '@/kernels/planar';
import { noisyPlane, testHeap } from '@/kernels/testing';
import { drawer, near, solidFrame, wholeVideo } from './testing';

const W = 96;
const H = 96;
const OUTPUT = { width: W, height: H };
const BOX = { x: 24, y: 8, width: 48, height: 40 };

let heap: KernelHeap;
let noise: PlanarFrame;
beforeAll(async () => {
  heap = await testHeap();
  noise = allocateFrame(heap, W, H);
  // Grey, so that what is read is luma and no mix of two rows' colours.
  const bytes = frameBytes(heap, noise).fill(128);
  bytes.set(
    noisyPlane(W, H, 5).map((v) => 40 + v / 2),
    0,
  );
});
const { draw } = drawer(() => heap, OUTPUT);

const on = (reflection: Reflection | null, more: Partial<VideoLayer> = {}): VideoLayer => ({
  ...wholeVideo(OUTPUT, { ...more, reflection }),
  ...{ source: BOX, destination: BOX },
});
const reflection = (more: Partial<Reflection> = {}): Reflection => ({
  ...{ ground: 50, end: 90, strength: 1, reach: 40, ...more },
});

test('below its ground a picture is seen upside down, fading the further down it is', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 24, max: 30 }),
      fc.integer({ min: 1, max: 20 }),
      fc.double({ min: 0.1, max: 1, noNaN: true }),
      (half, halfReach, strength) => {
        const [ground, reach] = [half * 2, halfReach * 2];
        const below = reflection({ ground, end: Math.min(H, ground + reach), strength, reach });
        const at = draw([on(below)], { c: noise });
        const plain = draw([on(null)], { c: noise });
        for (let row = 0; row < H; row++)
          for (const x of [4, 24, 47, 71, 90]) {
            const mirrored = 2 * ground - 1 - row;
            const left = Math.max(0, 1 - (row + 0.5 - ground) / reach) * strength;
            const isBelow = row >= ground && row < below.end && mirrored < BOX.y + BOX.height;
            const want = isBelow ? plain(x, mirrored)[0] * left : plain(x, row)[0];
            expect(Math.abs(at(x, row)[0] - want)).toBeLessThan(4);
          }
      },
    ),
    { numRuns: 25 },
  );
});

test('a reflection has the outline and the see-through parts of what it reflects', () => {
  const mask = { shape: 'ellipse', feather: 0 } as const;
  const white = solidFrame(heap, '#ffffff', OUTPUT);
  const at = draw([on(reflection({ ground: 48, reach: 400 }), { mask, opacity: 0.5 })], {
    c: white,
  });
  // Where an ellipse has its corners nothing is seen, in its middle half of the white.
  near(at(26, 50), [0, 0, 0], 8);
  near(at(26, 85), [0, 0, 0], 8);
  near(at(48, 62), [123, 123, 123], 6);
});

test('a drawing is reflected too, and one that lies partly outside is cut off', () => {
  const ring = (x: number): DrawingLayer => ({
    ...{ kind: 'drawing', opacity: 1, blend: 'normal', reflection: reflection({ reach: 4000 }) },
    mark: {
      ...{ kind: 'outline', shape: 'rectangle', radius: 0, fill: '#ffffff', stroke: null },
      box: { ...BOX, x, y: 28, height: 20 },
    },
  });
  for (const x of [-20, 24, 80]) {
    const at = draw([ring(x)], {});
    const inside = Math.min(W - 4, Math.max(4, x + 10));
    near(at(inside, 40), [255, 255, 255]);
    near(at(inside, 49), [0, 0, 0]);
    // Its lower edge is at 48, two above the ground: so the mirrored one is two below it.
    near(at(inside, 56), [255, 255, 255], 6);
    near(at(inside, 74), [0, 0, 0]);
  }
});

test('what is reflected is no longer a picture that only fills its box', () => {
  const turned = draw([on(reflection(), { turn: 180 })], { c: noise });
  const upright = draw([on(null)], { c: noise });
  // Turned by half and then seen in the ground, left is right and up is where it was.
  const far = [30, 60].map((x) => [turned(x, 58)[0], upright(95 - x, BOX.y + 58 - 52)[0]] as const);
  for (const [got, want] of far) expect(Math.abs(got - want * (1 - 8.5 / 40))).toBeLessThan(12);
});

test('what a solid cover hides has no part in the picture, reflected or not', () => {
  const even = (max: number) => fc.integer({ min: 0, max: max / 2 }).map((n) => n * 2);
  const areas = fc
    .record({ x: even(W - 4), y: even(H - 4), width: even(40), height: even(40) })
    .map(({ x, y, width, height }) => ({
      ...{ x, y, width: Math.min(width + 2, W - x), height: Math.min(height + 2, H - y) },
    }));
  fc.assert(
    fc.property(areas, even(12), (area, further) => {
      const below = reflection({ ground: 48 + further, end: 90 });
      const secret = allocateFrame(heap, W, H);
      const bytes = frameBytes(heap, secret);
      bytes.set(frameBytes(heap, noise));
      for (let y = area.y; y < area.y + area.height; y++)
        bytes.fill(230, y * W + area.x, y * W + area.x + area.width);
      const cover: RegionLayer = {
        ...{ kind: 'region', effect: { kind: 'solid', color: '#224466' } },
        area: area as InOutput,
      };
      const picture = [on(below)];
      const layers = [...picture, ...reflectedCovers(picture, [cover]), cover];
      const [bare, other] = [draw(layers, { c: noise }), draw(layers, { c: secret })];
      const everywhere = Array.from({ length: W * H }, (_, i) => [i % W, (i / W) | 0] as const);
      const told = everywhere.filter(([x, y]) => other(x, y).join() !== bare(x, y).join());
      expect(told).toEqual([]);
      releaseFrame(heap, secret);
    }),
    { numRuns: 20 },
  );
});
