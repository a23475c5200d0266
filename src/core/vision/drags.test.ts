import type { Rect } from '../scale/rect';
import type { Change } from './changes';
import { inferDrags, pressesWithDrags } from './drags';
import { foundTrack } from './found-track';
import type { Spot } from './presses';

const FRAME = 1000 / 30;
const change = (i: number, box: Rect | null, more: Partial<Change> = {}): Change => {
  const boxes = box ? [{ ...box, tiles: 4 }] : [];
  return { ms: i * FRAME, boxes, calm: boxes, share: 0.01, scrolled: 0, ...more };
};

/** A pointer that rests for 20 pictures, goes 150 pixels in 30, and rests again. */
const spots = Array.from({ length: 80 }, (_, i): Spot => ({
  ...{ ms: i * FRAME, x: 400 + 5 * Math.min(30, Math.max(0, i - 20)), y: 300, form: 'arrow' },
}));
/** What changes beside the pointer in some of the pictures. */
const beside = (when: (i: number) => boolean, away = 0, more: Partial<Change> = {}): Change[] =>
  spots.map(({ x, y }, i) => {
    const box = { x: x + 10, y: y + 10 + away, width: 48, height: 32 };
    return change(i, i > 20 && i <= 50 && when(i) ? box : null, more);
  });

test('what changes beside the pointer all along its way is dragged by it', () => {
  const [drag, ...more] = inferDrags(
    spots,
    beside((i) => i % 5 > 0),
  );
  expect(more).toEqual([]);
  expect(drag).toMatchObject({ x: 400, y: 300, ms: spots[20]!.ms, until: spots[50]!.ms });
});

test('what lights up as it passes, lies elsewhere, or is scrolled is not', () => {
  expect(
    inferDrags(
      spots,
      beside((i) => i % 4 === 0),
    ),
  ).toEqual([]);
  expect(
    inferDrags(
      spots,
      beside(() => true, 200),
    ),
  ).toEqual([]);
  expect(
    inferDrags(
      spots,
      beside(() => true, 0, { scrolled: 12 }),
    ),
  ).toEqual([]);
});

test('a rest on the way does not end it, a long one does; who is hidden drags nothing', () => {
  const resting = (from: number, pictures: number) =>
    spots.map((spot, i) => ({ ...spot, x: spots[i < from ? i : Math.max(from, i - pictures)]!.x }));
  const changes = (of: readonly (Spot | null)[]) =>
    of.map((spot, i) => {
      const moves = spot && of[i - 1] && spot.x !== of[i - 1]!.x;
      return change(i, moves ? { x: spot.x, y: 300, width: 32, height: 32 } : null);
    });
  const dragsIn = (of: readonly (Spot | null)[]) => inferDrags(of, changes(of));
  expect(dragsIn(resting(35, 4))).toHaveLength(1);
  expect(dragsIn(resting(35, 12))).toHaveLength(2);
  const hidden = spots.map((spot, i) => (i > 20 && i < 48 ? null : spot));
  expect(dragsIn(hidden)).toEqual([]);
  expect(dragsIn([])).toEqual([]);
});

test('a press that is a drag is told once, from where it began to where it ended', () => {
  const drags = inferDrags(
    spots,
    beside(() => true),
  );
  const at = (ms: number) => ({ ms, x: 400, y: 300, confidence: 0.9 });
  const [early, own] = [at(100), at(spots[19]!.ms)];
  const all = pressesWithDrags([early, own], drags);
  expect(all).toEqual([early, drags[0]]);
  const reach = { left: 1, top: 1, right: 9, bottom: 9 };
  const found = spots.map((spot) => ({ ...spot, form: 'arrow' as const, confidence: 1, reach }));
  const times = spots.map(({ ms }) => ms);
  const { events } = foundTrack(found, times, all, { width: 1280, height: 720 })!;
  const told = events.map(({ t, type }) => `${Math.round(t)} ${type}`);
  expect(told).toEqual(['100 down', '190 up', '667 down', '1667 up']);
});
