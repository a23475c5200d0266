import fc from 'fast-check';
import { BlobFinder } from '@/core/vision/blobs';
import { TILE, tilesOf, type Luma } from '@/core/vision/luma';
import { fitsPointer } from '@/core/vision/sightings';
import { StandingThings } from './standing';

const SIZE = { width: 160, height: 96 };
const { across, down } = tilesOf(SIZE);
const plain = (): Luma => ({
  ...{ ...SIZE, stride: SIZE.width },
  data: new Uint8Array(SIZE.width * SIZE.height).fill(200),
});

/** Draws a rectangle; answers the tiles that it touches. */
function draw(
  { data }: Luma,
  { x, y, width, height, grey }: { [key in 'x' | 'y' | 'width' | 'height' | 'grey']: number },
): Set<number> {
  const tiles = new Set<number>();
  for (let v = y; v < Math.min(SIZE.height, y + height); v++)
    for (let u = x; u < Math.min(SIZE.width, x + width); u++) {
      data[v * SIZE.width + u] = grey;
      tiles.add(Math.floor(v / TILE) * across + Math.floor(u / TILE));
    }
  return tiles;
}

const rectangle = fc.record({
  x: fc.nat(SIZE.width - 1),
  y: fc.nat(SIZE.height - 1),
  width: fc.integer({ min: 1, max: 60 }),
  height: fc.integer({ min: 1, max: 40 }),
  // The ground, what is far from it, and what lights up a little.
  grey: fc.constantFrom(200, 20, 225, 120),
});

const inOrder = (blobs: readonly { x: number; y: number; width: number; count: number }[]) =>
  blobs.map(({ x, y, width, count }) => [x, y, width, count].join()).sort();

test('what is found anew where something changed is what all of the picture would give', () => {
  fc.assert(
    fc.property(fc.array(fc.array(rectangle, { maxLength: 3 }), { maxLength: 8 }), (pictures) => {
      const [ground, now] = [plain(), plain()];
      const things = new StandingThings(SIZE);
      const finder = new BlobFinder(SIZE);
      const differing = new Set<number>();
      for (const drawn of pictures) {
        for (const one of drawn)
          for (const tile of draw(now, one)) {
            differing.add(tile);
            things.touch(tile);
          }
        const whole = finder
          .find(now, ground, differing)
          .flatMap((blob) => {
            const parts = finder.standingBefore(now, ground, blob);
            return parts.length ? parts : [blob];
          })
          .filter(fitsPointer);
        expect(inOrder(things.find(now, ground, differing))).toEqual(inOrder(whole));
      }
    }),
    { numRuns: 300 },
  );
});

test('a pointer before a button that lit up is seen as it comes, goes on and leaves', () => {
  const [ground, now] = [plain(), plain()];
  const things = new StandingThings(SIZE);
  const all = Array.from({ length: across * down }, (_, tile) => tile);
  const look = (...drawn: Parameters<typeof draw>[1][]) => {
    for (const one of drawn) for (const tile of draw(now, one)) things.touch(tile);
    return inOrder(things.find(now, ground, new Set(all)));
  };
  const button = { x: 30, y: 20, width: 90, height: 50, grey: 222 };
  const pointer = (x: number) => ({ x, y: 40, width: 10, height: 14, grey: 10 });
  expect(look(button, pointer(50))).toEqual(['50,40,10,140']);
  expect(look(button, pointer(70))).toEqual(['70,40,10,140']);
  expect(look()).toEqual(['70,40,10,140']);
  expect(look({ ...button, grey: 200 })).toEqual([]);
});

test('another ground has nothing on it yet', () => {
  const [ground, now] = [plain(), plain()];
  const things = new StandingThings(SIZE);
  const tiles = draw(now, { x: 40, y: 30, width: 12, height: 16, grey: 20 });
  for (const tile of tiles) things.touch(tile);
  expect(things.find(now, ground, tiles)).toHaveLength(1);
  things.clear();
  expect(things.find(now, ground, tiles)).toEqual([]);
});
