import fc from 'fast-check';
import { TILE, tilesOf } from '@/core/vision/luma';
import { KeptPictures } from './kept-pictures';

const SIZE = { width: 5 * TILE, height: 4 * TILE };
const { across, down } = tilesOf(SIZE);
const BYTES = SIZE.width * SIZE.height;

/** Pictures of which each differs in some tiles from the one before, and those tiles. */
function recording(steps: readonly (readonly number[])[]) {
  let picture = Uint8Array.from({ length: BYTES }, (_, i) => i * 7);
  const pictures = [{ picture, differing: null as readonly number[] | null }];
  steps.forEach((tiles, step) => {
    picture = picture.slice();
    for (const tile of tiles)
      for (let y = 0; y < TILE; y++) {
        const row = Math.floor(tile / across) * TILE + y;
        const at = row * SIZE.width + (tile % across) * TILE;
        for (let x = 0; x < TILE; x++) picture[at + x]! += 1 + step + x;
      }
    pictures.push({ picture, differing: tiles });
  });
  return pictures;
}

const steps = fc.array(fc.uniqueArray(fc.nat(across * down - 1), { maxLength: across * down }), {
  maxLength: 12,
});

test('each picture is read again as it was, from any of them on', () => {
  fc.assert(
    fc.property(steps, fc.nat(), (tiles, start) => {
      const pictures = recording(tiles);
      const kept = new KeptPictures(SIZE);
      for (const { picture, differing } of pictures) kept.keep(picture, differing);
      const from = start % pictures.length;
      using stream = kept.open(from);
      const into = new Uint8Array(BYTES);
      for (const { picture } of pictures.slice(from)) {
        expect(stream.read(into)).toBe(true);
        expect(Buffer.compare(into, picture)).toBe(0);
      }
      expect(stream.read(into)).toBe(false);
    }),
  );
});

test('there are the first of them only, when there is no room for more', () => {
  const pictures = recording([[1], [2, 3], [4], [5]]);
  // The first whole, one of a tile, but none of two, and then no other either.
  const kept = new KeptPictures(SIZE, BYTES + 1.8 * TILE * TILE);
  for (const { picture, differing } of pictures) kept.keep(picture, differing);
  expect(kept.covers({ from: 0, to: 2 })).toBe(true);
  expect(kept.covers({ from: 0, to: 3 })).toBe(false);
  expect(kept.covers({ from: 4, to: 5 })).toBe(false);
});
