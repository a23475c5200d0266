import fc from 'fast-check';
import { BlobFinder } from './blobs';
import { changedPlaces } from './changed-places';
import { boxesOf, movedPart, withoutPointer, type Change } from './changes';
import { foundTrack } from './found-track';
import { joinHotspots, strangersAmong } from './joins';
import { tilesOf } from './luma';
import type { PointerLook } from './look';
import { pathOf, PointerPath, type Candidate, type Picture } from './pointer-path';
import { inferPresses } from './presses';
import { screenActivities } from './screen-activity';
import { scrolledBy } from './scrolling';
import { sightingsOf } from './sightings';
import { ARROW, blank, stamp } from './testing';

const SIZE = { width: 320, height: 240 };
const allTiles = () => {
  const { across, down } = tilesOf(SIZE);
  return Array.from({ length: across * down }, (_, tile) => tile);
};
test('a thing that moves is sighted where it was and where it is, on a plain ground too', () => {
  for (const page of [false, true])
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 120 }),
        fc.integer({ min: 10, max: 200 }),
        fc.integer({ min: 160, max: 290 }),
        (x, y, to) => {
          const before = blank(SIZE, page);
          const now = blank(SIZE, page);
          stamp(before, ARROW, x, y);
          stamp(now, ARROW, to, 220 - y);
          const blobs = new BlobFinder(SIZE).find(now, before, allTiles());
          const found = sightingsOf(now, before, blobs);
          expect(found.length).toBeGreaterThanOrEqual(2);
          const corners = found.map((one) => [one.x + 6, one.y + 6]);
          for (const [u, v] of [
            [x, y],
            [to, 220 - y],
          ] as const)
            expect(corners.some(([a, b]) => Math.hypot(a! - u, b! - v) <= 4)).toBe(true);
        },
      ),
      { numRuns: 20 },
    );
});

const at = (x: number, y: number, misfit: number, look = 0): Candidate => ({ look, x, y, misfit });

test('the path stays with what fits, rides out a bad picture, and hides where nothing fits', () => {
  const rest = at(50, 50, 0.05);
  const chance = at(300, 10, 0.04);
  const pictures: Picture[] = [
    ...Array.from({ length: 5 }, (_, i) => ({ ms: i * 33, candidates: [rest] })),
    { ms: 165, candidates: [at(60, 50, 0.08), chance] },
    { ms: 198, candidates: [at(70, 50, 0.25)] },
    { ms: 231, candidates: [at(80, 50, 0.06)] },
    ...Array.from({ length: 12 }, (_, i) => ({ ms: 264 + i * 33, candidates: [] })),
  ];
  const path = pathOf(pictures);
  expect(path.slice(0, 8).map((found) => found.at?.x)).toEqual([50, 50, 50, 50, 50, 60, 70, 80]);
  expect(path.slice(8).every((found) => found.at === null)).toBe(true);
  expect(path.every(({ confidence }) => confidence >= 0 && confidence <= 1)).toBe(true);
  expect(path[0]!.confidence).toBeGreaterThan(path[6]!.confidence);
  expect(pathOf([])).toEqual([]);
});

test('as pictures come, the path ends where the path over all of them so far does', () => {
  const place = fc.record({
    x: fc.integer({ min: 0, max: 3 }).map((n) => n * 90),
    misfit: fc.integer({ min: 0, max: 30 }).map((n) => n / 100),
  });
  const places = fc.array(place, { maxLength: 3 });
  fc.assert(
    fc.property(fc.array(places, { minLength: 1, maxLength: 25 }), (all) => {
      const pictures = all.map((list, i): Picture => {
        const candidates = list.map(({ x, misfit }) => at(x, 40, misfit));
        return { ms: i * 33, candidates };
      });
      const path = new PointerPath();
      pictures.forEach((picture, i) => {
        const now = path.add(picture);
        expect(pathOf(pictures.slice(0, i + 1))[i]!.at).toBe(now);
      });
      expect(path.whole()).toEqual(pathOf(pictures));
    }),
  );
});

test('what comes up elsewhere and is like a pointer is none while the pointer stays', () => {
  const pointer = at(100, 100, 0.22);
  const like = at(300, 60, 0.17, 1);
  // What changed reached to the pointer too, which is found there anew.
  const ends = (found: Candidate) =>
    pathOf(
      Array.from({ length: 60 }, (_, i) => ({
        ms: i * 33,
        candidates: i < 20 ? [pointer] : [found, like],
      })),
    )[59]!.at;
  const anew = at(100.1, 100, 0.22);
  expect(ends({ ...anew, again: pointer })).toMatchObject({ x: 100.1 });
  // Were it not known to be there still, it might be the one that went.
  expect(ends(anew)).toBe(like);
});

const look = (x: number, y: number): PointerLook => ({
  ...{ width: 20, height: 24, points: [], form: 'arrow', seen: 3 },
  hotspot: { x, y },
});
const path = (...candidates: (Candidate | null)[]) =>
  candidates.map((found) => ({ at: found, confidence: 1 }));

test('a look that the pointer would have to leap to is a stranger; others share a hotspot', () => {
  const first = (number: number) => number === 0;
  const still = path(at(10, 10, 0), at(10, 10, 0), at(8, 4, 0, 1), at(8, 4, 0, 1), at(10, 10, 0));
  expect(strangersAmong(still, [look(2, 2), look(9, 9)], first)).toEqual([]);
  const leaps = path(at(10, 10, 0), at(200, 90, 0, 1), at(12, 10, 0), at(200, 90, 0, 1));
  expect(strangersAmong(leaps, [look(2, 2), look(9, 9)], first)).toEqual([1]);
  expect(strangersAmong(leaps, [look(2, 2), look(9, 9)], () => true)).toEqual([]);
  const [, joined] = joinHotspots(still, [look(2, 2), look(9, 9)], first);
  expect(joined!.hotspot).toEqual({ x: 4, y: 8 });
});

test('tiles that touch are one part of the picture; the pointer’s own are left out', () => {
  const { across } = tilesOf(SIZE);
  const boxes = boxesOf([0, 1, across, 5 * across + 9], across);
  expect(boxes).toEqual([
    { x: 0, y: 0, width: 32, height: 32, tiles: 3 },
    { x: 144, y: 80, width: 16, height: 16, tiles: 1 },
  ]);
  const pointer = { x: 146, y: 84, width: 12, height: 20 };
  expect(withoutPointer(boxes, pointer, null)).toEqual([boxes[0]]);
  expect(withoutPointer(boxes, null, null)).toEqual(boxes);
  // From one end of it to the other, it is one change with both.
  const long = [{ x: 96, y: 80, width: 64, height: 32, tiles: 8 }];
  expect(withoutPointer(long, { ...pointer, x: 100 }, pointer)).toEqual([]);
});

test('what may have been scrolled is a column of changes, however sparse', () => {
  const row = (y: number, tiles: number, x = 64) => ({
    x,
    y,
    width: 16 * tiles,
    height: 16,
    tiles,
  });
  expect(movedPart([row(32, 5), row(96, 9), row(160, 6), row(96, 3, 256)])).toEqual({
    ...{ x: 64, y: 32, width: 144, height: 144 },
  });
  expect(movedPart([])).toEqual({ x: 0, y: 0, width: 0, height: 0 });
});

test('scrolling is told in whole pixels, and nothing else is scrolling', () => {
  const rect = { x: 0, y: 0, ...SIZE };
  fc.assert(
    fc.property(fc.integer({ min: -60, max: 60 }), (by) => {
      const before = blank(SIZE);
      for (let y = 0; y < SIZE.height; y++)
        before.data.fill(
          40 + ((Math.imul(y + 1, 2654435761) >>> 24) % 180),
          y * SIZE.width + 30,
          y * SIZE.width + 200,
        );
      const now = blank(SIZE);
      for (let y = 0; y < SIZE.height; y++) {
        const from = Math.min(SIZE.height - 1, Math.max(0, y - by)) * SIZE.width;
        now.data.set(before.data.subarray(from, from + SIZE.width), y * SIZE.width);
      }
      expect(scrolledBy(before, now, rect)).toBe(by);
    }),
    { numRuns: 30 },
  );
  expect(scrolledBy(blank(SIZE), blank(SIZE, true), rect)).toBe(0);
});

const change = (ms: number, ...boxes: (readonly [number, number, number, number])[]): Change => {
  const told = boxes.map(([x, y, width, height]) => ({
    ...{ x, y, width, height },
    tiles: Math.ceil((width * height) / 256),
  }));
  return { ms, boxes: told, calm: told, share: 0, scrolled: 0 };
};
const HD = { width: 1920, height: 1080 };

test('what happened: typing advances, a caret blinks, a menu opens, a film goes on', () => {
  const typed = Array.from({ length: 12 }, (_, i) => change(i * 120, [400 + i * 9, 300, 32, 32]));
  expect(screenActivities(typed, HD)).toMatchObject([{ kind: 'typing', start: 0, end: 1320 }]);
  const caret = Array.from({ length: 12 }, (_, i) => change(i * 500, [400, 300, 16, 32]));
  expect(screenActivities(caret, HD)).toEqual([]);
  const menu = [change(0), change(33, [600, 200, 240, 320]), change(66)];
  expect(screenActivities(menu, HD)).toMatchObject([{ kind: 'opening', start: 33 }]);
  const film = Array.from({ length: 90 }, (_, i) => change(i * 33, [900, 300, 480, 272]));
  expect(screenActivities(film, HD)).toMatchObject([{ kind: 'video' }]);
  const page = [{ ...change(0, [0, 0, 1920, 1080]), share: 0.9 }];
  expect(screenActivities(page, HD)).toMatchObject([{ kind: 'page' }]);
  const scroll = [0, 33, 66].map((ms) => ({
    ...change(ms, [300, 100, 900, 800]),
    scrolled: -40,
  }));
  expect(screenActivities(scroll, HD)).toMatchObject([{ kind: 'scroll', scrolled: -120 }]);
});

test('a field that lights up has not opened, a panel of its size has', () => {
  const at = (tiles: number): Change => {
    const box = { x: 400, y: 300, width: 480, height: 96, tiles };
    return { ms: 500, boxes: [box], calm: [box], share: 0, scrolled: 0 };
  };
  // Its ring is a tile wide; a glow around it reaches into the next ones.
  for (const tiles of [68, 90])
    expect(screenActivities([at(tiles)], HD)).toMatchObject([{ kind: 'change' }]);
  for (const tiles of [130, 180])
    expect(screenActivities([at(tiles)], HD)).toMatchObject([{ kind: 'opening' }]);
});

test('typing is told from what lights up before it, what opens beneath it, and what fades', () => {
  const letters = (from: number, step: number) =>
    Array.from({ length: 10 }, (_, i) => change(1200 + i * 130, [from + i * step, 300, 32, 32]));
  const field = change(1000, [380, 280, 600, 64]);
  const list = change(2600, [380, 340, 600, 200]);
  for (const [from, step, box] of [
    [400, 9, { x: 400, y: 300, width: 113, height: 32 }],
    // From right to left.
    [940, -9, { x: 859, y: 300, width: 113, height: 32 }],
  ] as const) {
    const found = screenActivities([field, ...letters(from, step), list], HD);
    expect(found.find(({ kind }) => kind === 'typing')).toMatchObject({
      ...{ start: 1200, end: 2370 },
      box,
    });
    // What is beside it is told, too.
    expect(found.some(({ kind, start }) => kind !== 'typing' && start === 1000)).toBe(true);
  }
  // A caret blinks before and after; narrow letters are seen in few tiles, and mended by the codec.
  const narrow = Array.from({ length: 40 }, (_, i) => [
    change(3000 + i * 150, [400 + 16 * Math.floor(i / 5), 304, 16, 32]),
    change(3033 + i * 150, [400 + 16 * Math.floor(i / 5), 304, 16, 16]),
  ]).flat();
  const blinks = (from: number, x: number) =>
    [0, 1, 2, 3, 4].map((i) => change(from + i * 500, [x, 304, 16, 32]));
  const typed = screenActivities([...blinks(500, 400), ...narrow, ...blinks(9200, 512)], HD).filter(
    ({ kind }) => kind === 'typing',
  );
  expect(typed).toHaveLength(1);
  expect(typed[0]!.box).toEqual({ x: 400, y: 304, width: 128, height: 32 });
  // Letters in one tile are not told from a caret: up to four of them at either end.
  expect(typed[0]!.start).toBeGreaterThanOrEqual(3000);
  expect(typed[0]!.start).toBeLessThanOrEqual(3000 + 4 * 150);
  expect(typed[0]!.end).toBeGreaterThanOrEqual(3000 + 35 * 150);
  expect(typed[0]!.end).toBeLessThanOrEqual(3000 + 39 * 150);
  const none = (changes: Change[]) =>
    expect(screenActivities(changes, HD).filter(({ kind }) => kind === 'typing')).toEqual([]);
  // A button fades in each picture, by other parts of it each time.
  none(Array.from({ length: 8 }, (_, i) => change(i * 33, [400, 300, 64 + 16 * (i % 3), 32])));
  // A caret blinks on where it was put.
  none([0, 500, 1000, 1500].map((ms) => change(ms, [ms < 1500 ? 400 : 480, 300, 16, 32])));
  // A spinner goes to and fro; a list is laid out line by line.
  none(Array.from({ length: 12 }, (_, i) => change(i * 120, [400 + 40 * (i % 2), 300, 32, 32])));
  none(Array.from({ length: 12 }, (_, i) => change(i * 120, [400 + i * 9, 300 + i * 34, 64, 32])));
});

test('a press is inferred where the pointer stands and something opens, not as it leaves', () => {
  const frames = Array.from({ length: 60 }, (_, i) => i * 33);
  const spots = frames.map((ms, i) => ({
    ...{ ms, y: 300, form: 'arrow' },
    x: i < 10 ? i * 40 : i < 50 ? 400 : 400 + (i - 50) * 30,
  }));
  const opens = (...when: number[]) =>
    frames.map((ms, i) => (when.includes(i) ? change(ms, [380, 290, 96, 48]) : change(ms)));
  const found = inferPresses(spots, opens(20));
  expect(found).toMatchObject([{ x: 400, y: 300 }]);
  expect(found[0]!.ms).toBeGreaterThan(frames[17]!);
  expect(found[0]!.ms).toBeLessThan(frames[20]!);
  // What is large is surer, and what comes up late is less sure.
  const [small] = found;
  const large = frames.map((ms, i) =>
    change(ms, ...(i === 20 ? [[380, 290, 320, 240] as const] : [])),
  );
  expect(inferPresses(spots, large)[0]!.confidence).toBeGreaterThan(small!.confidence);
  const slowly = (changes: Change[]) => changes.map((one) => ({ ...one, ms: one.ms * 5 }));
  const [late] = inferPresses(
    spots.map((spot) => ({ ...spot, ms: spot.ms * 5 })),
    slowly(large),
  );
  expect(late!.confidence).toBeLessThan(small!.confidence);
  // While it moves, and as it leaves, what changes is what it passes.
  expect(inferPresses(spots, opens(5))).toEqual([]);
  expect(inferPresses(spots, opens(49))).toEqual([]);
  // What follows at the same place is what was typed there.
  expect(inferPresses(spots, opens(20, 30, 40))).toHaveLength(1);
  const far = frames.map((ms, i) => (i === 20 ? change(ms, [1200, 900, 48, 32]) : change(ms)));
  expect(inferPresses(spots, far)).toEqual([]);
  // Those who press leave while the page they asked for comes up.
  const comesUp = { ...change(frames[49]!, [0, 100, 960, 600]), share: 0.3 };
  const page = frames.map((ms, i) => (i === 49 ? comesUp : change(ms)));
  expect(inferPresses(spots, page)).toHaveLength(1);
  // A page that is scrolled begins by parts of a pixel; what is small before it may be a press.
  const scrolls = (first: Change) =>
    frames.map((ms, i) => {
      if (i === 20) return { ...first, ms };
      return i > 20 && i < 30 ? { ...change(ms, [0, 100, 960, 600]), scrolled: -20 } : change(ms);
    });
  const all = { ...change(0, [0, 100, 960, 600]), share: 0.3 };
  expect(inferPresses(spots, scrolls(all))).toEqual([]);
  expect(inferPresses(spots, scrolls(change(0, [380, 290, 96, 48])))).toHaveLength(1);
  // A film elsewhere does not hide what is pressed here.
  const film = frames.map((ms, i) =>
    i === 20
      ? change(ms, [1200, 900, 48, 32], [380, 290, 96, 48])
      : change(ms, [1200, 900, 48, 32]),
  );
  expect(inferPresses(spots, film)).toMatchObject([{ x: 400, y: 300 }]);
});

test('a found track says where, how sure, when hidden, and what was inferred', () => {
  const times = Array.from({ length: 40 }, (_, i) => i * 50);
  const reach = (i: number) => ({ left: 1, top: 2, right: i === 5 ? 20 : 12, bottom: 19 });
  const spots = times.map((ms, i) =>
    i >= 10 && i < 20
      ? null
      : {
          ...{ ms, x: i < 10 ? 100 : 100 + i, y: 50, form: 'arrow' as const, confidence: 0.8 },
          reach: reach(i),
        },
  );
  const press = { ms: 300, x: 100, y: 50, confidence: 0.75 };
  const track = foundTrack(spots, times, [press], SIZE)!;
  expect(track).toMatchObject({ version: 2, source: 'found', hidden: [[500, 1000]] });
  // As far as in any of its looks.
  expect(track.reach).toEqual({ left: 1, top: 2, right: 20, bottom: 19 });
  // Of a rest its first and its last are enough.
  expect(track.samples.filter(([ms]) => ms < 500)).toHaveLength(2);
  expect(track.samples[0]).toEqual([0, 100, 50, 0.8]);
  expect(track.events).toEqual([
    { t: 300, type: 'down', button: 0, confidence: 0.75 },
    { t: 390, type: 'up', button: 0, confidence: 0.75 },
  ]);
  expect(
    foundTrack(
      times.map(() => null),
      times,
      [],
      SIZE,
    ),
  ).toBeNull();
});

test('places that changed are told one by one, films by themselves', () => {
  const box = (x: number) => ({ x, y: 32, width: 16, height: 16, tiles: 1 });
  const changes = Array.from({ length: 200 }, (_, i): Change => {
    const boxes = [box(16), ...(i % 20 ? [] : [box(160)])];
    return { ms: i * 50, boxes: [...boxes, box(240)], calm: boxes, share: 0.01, scrolled: 0 };
  });
  const film = { kind: 'video', start: 0, end: 5000, box: box(240), scrolled: 0 } as const;
  const places = changedPlaces(changes, [film, { ...film, kind: 'typing', box: box(300) }])!;
  const at = (x: number) => places.filter((place) => place[2] === x);
  // What changes all the while is told in parts of two seconds, what does now and then each time.
  expect(at(16).every(([from, to]) => to - from <= 2000)).toBe(true);
  expect(at(16)).toHaveLength(5);
  expect(at(160).map(([from, to]) => [from, to])).toEqual(
    Array.from({ length: 10 }, (_, i) => [i * 1000, i * 1000]),
  );
  expect(at(240).map(([from, to]) => [from, to])).toEqual([
    [0, 2000],
    [2000, 4000],
    [4000, 5000],
  ]);
  expect(at(300)).toEqual([]);
  expect(places.map(([from]) => from)).toEqual(places.map(([from]) => from).sort((a, b) => a - b));
  const busy = Array.from({ length: 1000 }, (_, i) => ({
    ...changes[0]!,
    ms: i * 40,
    calm: Array.from({ length: 24 }, (_, k) => box(i + k * 1000)),
  }));
  expect(changedPlaces(busy, [])).toBeNull();
});
