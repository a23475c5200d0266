import fc from 'fast-check';
import { hiddenBy, shadowOf } from '@/core/frame/edge';
import type { Mask } from '@/core/layout/mask';
import { intersect } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import type { PlanarFrame } from '@/kernels/planar';
import { testHeap } from '@/kernels/testing';
import { MaskShop } from './masks';
import { drawer, plainRasterizer, solidFrame, wholeVideo } from './testing';

const OUTPUT = { width: 160, height: 96 };

let heap: KernelHeap;
let white: PlanarFrame;
beforeAll(async () => {
  heap = await testHeap();
  white = solidFrame(heap, '#ffffff', OUTPUT);
});
const { draw } = drawer(() => heap, OUTPUT);

const even = (min: number, max: number) =>
  fc.integer({ min: min / 2, max: max / 2 }).map((n) => 2 * n);
const mask: fc.Arbitrary<Mask | null> = fc.oneof(
  fc.constant(null),
  fc.record({
    shape: fc.constantFrom('ellipse' as const, 'squircle' as const, 'rectangle' as const),
    feather: fc.constantFrom(0, 3, 11),
  }),
  fc.record({
    ...{
      shape: fc.constant('rounded' as const),
      radius: fc.double({ min: 0, max: 60, noNaN: true }),
    },
    feather: fc.constantFrom(0, 5),
  }),
);
const box = fc.record({ x: even(0, 60), y: even(0, 40), width: even(4, 100), height: even(4, 56) });

test('what is said to be hidden behind a layer is opaque, whatever its outline', () => {
  const shop = new MaskShop(heap, plainRasterizer);
  fc.assert(
    fc.property(box, mask, (destination, of) => {
      const hidden = hiddenBy({ ...wholeVideo(OUTPUT), destination, mask: of });
      if (!hidden) return;
      expect(intersect(hidden, destination)).toEqual(hidden);
      if (!of) return expect(hidden).toEqual(destination);
      const { width, height } = destination;
      const alpha = heap.bytes(shop.of(of, width, height).alpha, width * height);
      for (let y = 0; y < hidden.height; y++) {
        const from = (hidden.y - destination.y + y) * width + hidden.x - destination.x;
        expect(alpha.subarray(from, from + hidden.width).every((a) => a === 255)).toBe(true);
      }
    }),
    { numRuns: 60 },
  );
});

test('behind what is see-through, turned or cut out all of a shadow is drawn', () => {
  const layer = wholeVideo(OUTPUT);
  const key = { footageId: 'f' } as never;
  expect(hiddenBy({ ...layer, opacity: 0.9 })).toBeNull();
  expect(hiddenBy({ ...layer, turn: 3 })).toBeNull();
  expect(hiddenBy({ ...layer, key })).toBeNull();
  expect(hiddenBy({ ...layer, key, backdrop: '#123456' })).toEqual(layer.destination);
});

test('a shadow without what is hidden looks as all of it does, once it is hidden', () => {
  fc.assert(
    fc.property(box, mask, fc.double({ min: 0.2, max: 1, noNaN: true }), (at, of, dark) => {
      const layer = { ...wholeVideo(OUTPUT), destination: at, source: at, mask: of };
      const hidden = hiddenBy(layer);
      const [some, all] = [hidden, null].map((left) =>
        draw([...shadowOf(at, of, dark, OUTPUT, left), layer], { c: white }, '#40a0c0'),
      );
      for (let y = 0; y < OUTPUT.height; y += 3)
        for (let x = 0; x < OUTPUT.width; x += 3)
          // A step of luma and one of chroma are three of a colour at most.
          some!(x, y).forEach((v, i) =>
            expect(Math.abs(v - all!(x, y)[i]!)).toBeLessThanOrEqual(3),
          );
    }),
    { numRuns: 12 },
  );
});

test('nothing is drawn of a shadow where it is hidden', () => {
  const at = { x: 40, y: 24, width: 80, height: 40 };
  const seen = draw([...shadowOf(at, null, 1, OUTPUT, at)], {}, '#ffffff');
  expect(seen(80, 40)).toEqual(draw([], {}, '#ffffff')(80, 40));
  expect(seen(80, 66)[0]).toBeLessThan(200);
});
