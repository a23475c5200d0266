import { ARROW, blank, stamp } from '@/core/vision/testing';
import { LEAST_CHANGE } from '@/core/vision/luma';
import type { PointerLook } from '@/core/vision/look';
import { testHeap } from '@/kernels/testing';
import { FEWEST, Pictures } from './pictures';
import { PointerTracker } from './track';

const SIZE = { width: 320, height: 240 };
const LOOK: PointerLook = {
  ...{ width: 13, height: 20, form: 'arrow', seen: 9, hotspot: { x: 0, y: 0 } },
  points: ARROW.flatMap((row, y) =>
    [...row].flatMap((mark, x) => {
      const tone = mark === '#' ? 20 : 240;
      return mark === '.' ? [] : [{ x, y, low: tone, high: tone }];
    }),
  ),
};

test('a pointer beside what changes is known to be where it was, unless it moved', async () => {
  using pictures = new Pictures(await testHeap(), SIZE, 2);
  using tracker = new PointerTracker(pictures, [LOOK]);
  const show = (x: number, lit: boolean) => {
    const { data } = blank(SIZE, true);
    // In the same tile as the pointer's tip, and beside it.
    if (lit) for (let y = 96; y < 99; y++) data.fill(90, y * SIZE.width + 96, y * SIZE.width + 99);
    stamp({ ...SIZE, data, stride: SIZE.width }, ARROW, x, 100);
    pictures.take((into) => {
      into.set(data);
      return true;
    });
    const { count } = pictures;
    tracker.look(count, count > 1 ? pictures.changedSince(1, LEAST_CHANGE, FEWEST) : []);
    const found = tracker.found.at(-1)!.candidates;
    return found.find((at) => Math.abs(at.x - x) < 1 && Math.abs(at.y - 100) < 1);
  };
  const first = show(100, false);
  expect(first).toMatchObject({ misfit: 0 });
  expect(show(100, true)!.again).toBe(first);
  const moved = show(101, true);
  expect(moved).toMatchObject({ misfit: 0 });
  expect(moved!.again).toBeUndefined();
});
