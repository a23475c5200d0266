import { shiftAt, type FollowPath } from '@/core/callout/follow-path';
import { letters } from '@/core/vision/testing';
import type { KernelHeap } from '@/kernels/heap';
import { testHeap } from '@/kernels/testing';
import { followContent } from './follow-path';
import { inTiles } from './pictures';

const SIZE = { width: 480, height: 320 };
const FPS = 25;
const COUNT = 60;
const rect = { x: 120, y: 150, width: 140, height: 30 };
const page = letters({ width: SIZE.width, height: 960 });
const other = letters(SIZE).data.reverse();
let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

/** A page whose rows are alike but for a few letters of their beginning. */
const alike = {
  ...page,
  data: page.data.map((sample, at) => {
    const [x, y] = [at % SIZE.width, Math.floor(at / SIZE.width)];
    return x > 140 && x < 154 ? sample : page.data[((y % 80) + 80) * SIZE.width + x]!;
  }),
};

interface Followed {
  marked?: number;
  over?: (l: Uint8Array, i: number) => void;
  of?: { readonly data: Uint8Array };
}

/** Follows it through a recording of a page; `scroll` tells how far it is, null for another page. */
function follow(
  scroll: (index: number) => number | null,
  { marked = 20, over = () => {}, of = page }: Followed = {},
): { path: FollowPath | null; progress: number[] } {
  const luma = inTiles(SIZE);
  const progress: number[] = [];
  const path = followContent(
    heap,
    rect,
    { ms: (marked * 1000) / FPS, from: 0, to: (COUNT * 1000) / FPS },
    {
      ...{ size: SIZE, rate: { num: FPS, den: 1 }, length: (COUNT * 1000) / FPS },
      open(seconds) {
        let index = Math.round(seconds * FPS);
        return {
          read(into) {
            if (index >= COUNT) return false;
            const by = scroll(index);
            for (let y = 0; y < SIZE.height; y++) {
              const from = (by === null ? y : y + by) * SIZE.width;
              const source = by === null ? other : of.data;
              into.set(source.subarray(from, from + SIZE.width), y * luma.width);
            }
            over(into, index++);
            return true;
          },
          [Symbol.dispose]() {},
        };
      },
    },
    (share) => progress.push(share),
  );
  return { path, progress };
}

const at = (path: FollowPath, index: number) => shiftAt(path, (index * 1000) / FPS);

test('content of a page that is scrolled is followed to the pixel, onwards and back', () => {
  const scroll = (i: number) => 60 + Math.round(50 * Math.sin(i / 9));
  const { path, progress } = follow(scroll);
  for (let i = 0; i < COUNT; i++)
    expect(at(path!, i)).toEqual({ dx: 0, dy: scroll(20) - scroll(i), scale: 1, sure: true });
  expect([...progress].sort((a, b) => a - b)).toEqual(progress);
  expect(progress.at(-1)).toBeCloseTo(1);
});

test('content that leaves the picture is gone, and is found again when it comes back', () => {
  const scroll = (i: number) => (Math.abs(i - 35) < 12 ? 560 : 60);
  const { path } = follow(scroll, { marked: 5 });
  expect(at(path!, 22)).toMatchObject({ dy: 0, sure: true });
  expect(at(path!, 40)).toBeNull();
  expect(at(path!, 55)).toMatchObject({ dy: 0, sure: true });
});

test('under something that opens over it, it may still be for a while, and then is there again', () => {
  const { path } = follow(() => 60, {
    over: (luma, index) => {
      if (index < 30 || index >= 50) return;
      for (let y = 120; y < 220; y++) luma.fill(240, y * SIZE.width + 60, y * SIZE.width + 400);
    },
  });
  expect(at(path!, 29)).toMatchObject({ sure: true });
  expect(at(path!, 45)?.sure ?? false).toBe(false);
  expect(at(path!, 50)).toMatchObject({ dx: 0, dy: 0, sure: true });
});

test('a page that fades in is covered from before it can be told for sure', () => {
  const { path } = follow((i) => (i < 20 ? null : 60), {
    marked: 40,
    over: (luma, index) => {
      const fog = index < 20 ? 1 : Math.max(0, 1 - (index - 20) / 8);
      for (let i = 0; i < luma.length; i++) luma[i] = luma[i]! * (1 - fog) + 226 * fog;
    },
  });
  expect(at(path!, 21)).toMatchObject({ dx: 0, dy: 0 });
  expect(at(path!, 10)).toBeNull();
});

test('a row that is alike but for a few letters is never taken for the one that went', () => {
  const scroll = (i: number) => 160 + Math.max(0, Math.min(i - 24, 54 - i)) * 24;
  const { path } = follow(scroll, {
    ...{ of: alike, marked: 5 },
    // The head of the page stays.
    over: (luma) => luma.fill(150, 0, SIZE.width * 90),
  });
  const away = Array.from({ length: COUNT }, (_, i) => i).filter((i) => scroll(i) > 250);
  expect(away.length).toBeGreaterThan(10);
  for (const i of away) expect(at(path!, i)?.sure ?? false).toBe(false);
  expect(at(path!, 58)).toMatchObject({ dy: 0, sure: true });
});

test('a rectangle of one colour cannot be followed', () => {
  const { path } = follow(() => 60, { over: (luma) => luma.fill(90) });
  expect(path).toBeNull();
});

test('of rows that are much alike the right one is found on a page that is made smaller', () => {
  const by = 5 / 6;
  const { path } = follow(() => 0, {
    of: alike,
    over(l, i) {
      if (i < 40) return;
      const stride = inTiles(SIZE).width;
      const sample = (x: number, y: number) =>
        alike.data[Math.min(959, y) * SIZE.width + Math.min(SIZE.width - 1, x)]!;
      for (let y = 0; y < SIZE.height; y++)
        for (let x = 0; x < SIZE.width; x++) {
          const [px, py] = [(x + 0.5) / by - 0.5, (y + 0.5) / by - 0.5];
          const [u, v] = [Math.max(0, Math.floor(px)), Math.max(0, Math.floor(py))];
          const [a, b] = [px - u, py - v];
          const upper = sample(u, v) * (1 - a) + sample(u + 1, v) * a;
          const lower = sample(u, v + 1) * (1 - a) + sample(u + 1, v + 1) * a;
          l[y * stride + x] = Math.round(upper * (1 - b) + lower * b);
        }
    },
  });
  const there = shiftAt(path!, 2000)!;
  expect(there.scale).toBeCloseTo(by, 2);
  expect(Math.abs(rect.x * there.scale + there.dx - rect.x * by)).toBeLessThan(1);
  expect(Math.abs(rect.y * there.scale + there.dy - rect.y * by)).toBeLessThan(1);
});
