import { ARROW, BEAM, blank, stamp } from '@/core/vision/testing';
import type { KernelHeap } from '@/kernels/heap';
import { testHeap } from '@/kernels/testing';
import { inTiles } from './pictures';
import { ScreenSighting } from './sight';

const SIZE = { width: 480, height: 320 };
const FPS = 30;
let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

interface Shown {
  readonly x: number;
  readonly y: number;
  readonly drawing: readonly string[] | null;
}

/** Where a hand takes the pointer: from place to place, resting at each for a while. */
function hand(count: number, drawing: (x: number, index: number) => Shown['drawing']): Shown[] {
  const places = [
    [60, 60],
    [380, 90],
    [200, 240],
    [90, 150],
    [400, 250],
    [250, 40],
  ] as const;
  return Array.from({ length: count }, (_, i) => {
    const at = Math.floor(i / 30);
    const [x0, y0] = places[at % places.length]!;
    const [x1, y1] = places[(at + 1) % places.length]!;
    const u = Math.min(1, Math.max(0, ((i % 30) - 10) / 15));
    const eased = u * u * (3 - 2 * u);
    const [x, y] = [Math.round(x0 + (x1 - x0) * eased), Math.round(y0 + (y1 - y0) * eased)];
    return { x, y, drawing: drawing(x, i) };
  });
}

/** Looks through a recording of a page over which a pointer goes. */
function look(shown: readonly Shown[], more: (luma: Uint8Array, index: number) => void = () => {}) {
  const size = inTiles(SIZE);
  const progress: number[] = [];
  let opened = 0;
  const sighting = new ScreenSighting(
    heap,
    SIZE,
    { num: FPS, den: 1 },
    {
      pictures: shown.length,
      onProgress: (share) => progress.push(share),
      open(seconds) {
        let index = Math.round(seconds * FPS);
        opened++;
        return {
          read(into) {
            const here = shown[index];
            if (!here) return false;
            const picture = blank(size, true);
            if (here.drawing) stamp(picture, here.drawing, here.x, here.y);
            more(picture.data, index++);
            into.set(picture.data);
            return true;
          },
          [Symbol.dispose]() {},
        };
      },
    },
  );
  return { ...sighting.run(), progress, opened };
}

test('a pointer is found to the pixel, from the first picture on, and where it is hidden', () => {
  const shown = hand(240, (_, i) => (i >= 150 && i < 180 ? null : ARROW));
  const { path, looks, track, progress, again, opened } = look(shown);
  // What came before its look was known is looked at again without reading it anew.
  expect(again).toBeGreaterThan(0);
  expect(opened).toBe(1);
  expect(looks[0]!.form).toBe('arrow');
  const { x, y } = looks[0]!.hotspot;
  shown.forEach((here, i) => {
    const { at } = path[i]!;
    expect(at === null).toBe(here.drawing === null);
    if (at) expect(Math.hypot(at.x + x - here.x, at.y + y - here.y)).toBeLessThan(3);
  });
  expect(track!.hidden).toEqual([[5000, 6000]]);
  expect([...progress].sort((a, b) => a - b)).toEqual(progress);
});

test('a text cursor that the pointer becomes where it rests is found too, with its own hotspot', () => {
  const shown = hand(300, (_, i) => ([2, 4, 7].includes(Math.floor((i + 15) / 30)) ? BEAM : ARROW));
  const beams = shown.map((here) =>
    here.drawing === BEAM ? { ...here, x: here.x - 3, y: here.y - 9 } : here,
  );
  const { path, looks } = look(beams);
  const found = shown.filter((here, i) => {
    const { at } = path[i]!;
    const spot = at && looks[at.look]!.hotspot;
    return spot && Math.hypot(at.x + spot.x - here.x, at.y + spot.y - here.y) < 4;
  });
  expect(found.length / shown.length).toBeGreaterThan(0.97);
});

test('a film within the picture is no pointer, and neither is a picture without one', () => {
  const film = (luma: Uint8Array, index: number) => {
    const { width } = inTiles(SIZE);
    for (let y = 200; y < 300; y++)
      for (let x = 300; x < 440; x++)
        luma[y * width + x] = 128 + 90 * Math.sin(x / 9 + index / 3) * Math.cos(y / 11 - index / 5);
  };
  const { path } = look(
    hand(240, (x) => (x < 290 ? ARROW : null)),
    film,
  );
  const seen = hand(240, () => ARROW).map(({ x }) => x < 290);
  const wrong = path.filter(({ at }, i) => at !== null && !seen[i]).length;
  expect(wrong).toBeLessThan(6);
  const none = look(
    hand(120, () => null),
    film,
  );
  expect(none).toMatchObject({ track: null, looks: [] });
});

test('a page that stands still is read once, and again when there is another', () => {
  const { width } = inTiles(SIZE);
  const { pages, activities } = look(
    hand(150, () => null),
    (luma, index) => {
      if (index >= 75) luma.fill(90, 40 * width, 280 * width);
    },
  );
  expect(pages).toHaveLength(2);
  expect(pages[0]).toMatchObject({ from: 0, to: 2500 });
  expect(pages[1]!.from).toBe(2500);
  expect(activities).toMatchObject([{ kind: 'page', start: 2500 }]);
});

test('a recording of more pictures than a call takes arguments is looked through to its end', () => {
  const [small, pictures] = [{ width: 32, height: 16 }, 140_000];
  const recording = {
    ...{ pictures, onProgress: () => {} },
    open() {
      let left = pictures;
      return { read: () => left-- > 0, [Symbol.dispose]() {} };
    },
  };
  const { path, track } = new ScreenSighting(heap, small, { num: 30, den: 1 }, recording).run();
  expect(path).toHaveLength(pictures);
  expect(track).toBeNull();
});
