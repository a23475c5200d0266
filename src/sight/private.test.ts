import type { ReadWord } from '@/core/private/read-text';
import type { Luma } from '@/core/vision/luma';
import type { KernelHeap } from '@/kernels/heap';
import { testHeap } from '@/kernels/testing';
import { inTiles } from './pictures';
import { bandsOf, findPrivate } from './private';

const SIZE = { width: 480, height: 320 };
const FPS = 25;
const MAIL = 'ilse@kilnbook.example';
/** What stands for an address in these pictures. */
const INK = 20;
const WIDTH = 160;
const HEIGHT = 12;

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

/** Reads each block of ink as an address. */
function reader(read: number[]) {
  return ({ data, stride, width, height }: Luma): ReadWord[] => {
    read.push(height);
    const words: ReadWord[] = [];
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const at = y * stride + x;
        const isCorner =
          data[at] === INK && data[at - 1] !== INK && (y === 0 || data[at - stride] !== INK);
        if (!isCorner || x + WIDTH > width || data[at + WIDTH - 1] !== INK) continue;
        words.push({ text: MAIL, confidence: 0.9, rect: { x, y, width: WIDTH, height: HEIGHT } });
      }
    return words;
  };
}

/** Looks through a recording of `count` pictures, each drawn on a light page. */
function look(count: number, draw: (picture: Uint8Array, stride: number, index: number) => void) {
  const luma = inTiles(SIZE);
  const read: number[] = [];
  const progress: number[] = [];
  const found = findPrivate(
    heap,
    {
      ...{ size: SIZE, rate: { num: FPS, den: 1 }, length: (count * 1000) / FPS },
      open() {
        let index = 0;
        return {
          read(into) {
            if (index >= count) return false;
            into.fill(220);
            draw(into, luma.width, index++);
            return true;
          },
          [Symbol.dispose]() {},
        };
      },
    },
    [],
    reader(read),
    (share) => progress.push(share),
  );
  return { found, read, progress };
}

const block = (picture: Uint8Array, stride: number, x: number, y: number, ink = INK) => {
  for (let v = 0; v < HEIGHT; v++)
    picture.fill(ink, (y + v) * stride + x, (y + v) * stride + x + WIDTH);
};

test('an address is found from when it appears to when it goes', () => {
  const { found, progress } = look(150, (picture, stride, index) => {
    if (index >= 40 && index < 110) block(picture, stride, 100, 64);
  });
  expect(found).toHaveLength(1);
  expect(found[0]!.kind).toBe('email');
  expect(found[0]!.stretches).toEqual([
    { from: 1600, to: 4400, rect: { x: 100, y: 64, width: WIDTH, height: HEIGHT } },
  ]);
  expect(progress.at(-1)).toBe(1);
});

test('one that is scrolled has a stretch where it stands before and after', () => {
  const { found } = look(150, (picture, stride, index) => {
    const y = index < 50 ? 240 : index < 70 ? 240 - (index - 50) * 8 : 80;
    // Much of the page moves with it.
    for (let row = 0; row < 20; row++) block(picture, stride, 300, (row * 32 + y) % 300, 120);
    block(picture, stride, 100, y);
  });
  const places = found.flatMap(({ stretches }) => stretches).map(({ rect }) => rect.y);
  expect(places).toEqual(expect.arrayContaining([240, 80]));
});

test('only what changed is read again', () => {
  const { read } = look(200, (picture, stride, index) => {
    block(picture, stride, 100, 32);
    // A caret that blinks.
    if (index % 30 < 15)
      for (let v = 0; v < 14; v++)
        picture.fill(60, (260 + v) * stride + 40, (260 + v) * stride + 43);
  });
  expect(read[0]).toBe(SIZE.height);
  expect(read.length).toBeGreaterThan(1);
  for (const height of read.slice(1)) expect(height).toBeLessThan(SIZE.height / 2);
});

test('what changed is read with the rows around it, each once', () => {
  expect(bandsOf([0], 30, 20)).toEqual([[0, 4]]);
  expect(bandsOf([30 * 10, 30 * 13 + 5], 30, 20)).toEqual([[7, 17]]);
  expect(bandsOf([0, 30 * 19], 30, 20)).toEqual([
    [0, 4],
    [16, 20],
  ]);
  expect(bandsOf([], 30, 20)).toEqual([]);
});
