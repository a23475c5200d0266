import { emptyProject, facts } from '../edit/fixture';
import type { Sources } from '../project/sources';
import type { PointerTrack } from '../telemetry/pointer-track';
import type { ScreenActivity } from '../vision/screen-activity';
import { doingsOf } from './doings';

const SCREEN = facts('screen', 'screen', 20);
const found: PointerTrack = {
  ...{ format: 'vistum-pointer', version: 2, width: 2560, height: 1440, inPicture: true },
  source: 'found',
  samples: [
    [0, 500, 500, 1],
    [20_000, 500, 500, 1],
  ],
  hidden: [[15_000, 20_000]],
  events: [
    { t: 2000, type: 'down', button: 0, confidence: 0.8 },
    { t: 2090, type: 'up', button: 0, confidence: 0.8 },
  ],
};
const happened = (
  kind: ScreenActivity['kind'],
  start: number,
  box = { x: 300, y: 200, width: 1200, height: 900 },
): ScreenActivity => ({ kind, start, end: start + 400, box, scrolled: 0 });
const sight = (...activities: ScreenActivity[]) => ({
  ...{ width: 2560, height: 1440, length: 20_000, pointer: null, activities, pages: [] },
});
const doings = (pointer: PointerTrack | null, ...activities: ScreenActivity[]) => {
  const sources: Sources = {
    footage: { screen: SCREEN },
    pointers: pointer ? { screen: pointer } : {},
    sights: { screen: sight(...activities) },
  };
  return doingsOf(emptyProject(), sources, 'screen')!;
};

test('what opens at a found press is what it brought about; what opens by itself is told', () => {
  const told = doings(found, happened('opening', 2100), happened('opening', 6000));
  const opened = told.filter(({ kind }) => kind === 'opening');
  expect(opened.map(({ start }) => start)).toEqual([6000]);
  expect(told.some(({ kind }) => kind === 'press')).toBe(true);
});

test('what is scrolled is told where the pointer is, if it is over it and seen', () => {
  const [over] = doings(found, happened('scroll', 8000)).filter(({ kind }) => kind === 'scroll');
  expect(over).toMatchObject({ left: 500, top: 500, right: 500, bottom: 500, confidence: 0.7 });
  const whole = { left: 300, top: 200, right: 1500, bottom: 1100 };
  const away = { x: 1000, y: 800, width: 900, height: 500 };
  expect(
    doings(found, happened('scroll', 8000, away)).find((a) => a.kind === 'scroll'),
  ).toMatchObject({
    ...{ left: 1000, top: 800 },
  });
  expect(doings(found, happened('scroll', 16_000)).find((a) => a.kind === 'scroll')).toMatchObject(
    whole,
  );
  expect(doings(null, happened('scroll', 8000))).toMatchObject([whole]);
});

test('a track that was recorded tells all; without one, what changes is gone by', () => {
  const recorded = { ...found, source: 'recorded' as const };
  expect(doings(recorded, happened('scroll', 8000)).some((a) => a.kind === 'scroll')).toBe(false);
  expect(doings(found, happened('change', 8000)).some((a) => a.kind === 'opening')).toBe(false);
  expect(doings(null, happened('change', 8000))).toMatchObject([{ kind: 'opening' }]);
  expect(doingsOf(emptyProject(), { footage: {}, pointers: {} }, 'screen')).toBeNull();
});

test('what is typed is as sure as the press that went into its line', () => {
  const typed = (start: number, y: number) =>
    doings(found, happened('typing', start, { x: 320, y, width: 200, height: 40 })).find(
      ({ kind }) => kind === 'typing',
    )!.confidence;
  expect(typed(2300, 480)).toBe(0.8);
  // In another line, long after it, and before it.
  expect(typed(2300, 700)).toBe(0.7);
  expect(typed(6000, 480)).toBe(0.7);
  expect(typed(1500, 480)).toBe(0.7);
});

test('typing that was recorded is told where the picture shows it', () => {
  const keys = [4000, 4150, 4300, 4450].map((t) => ({ t, type: 'key' as const, key: 'a' }));
  const recorded: PointerTrack = {
    ...found,
    source: 'recorded',
    events: [...found.events.map(({ confidence: _, ...event }) => event), ...keys],
  };
  const box = { x: 320, y: 480, width: 90, height: 40 };
  const typed = (...seen: ScreenActivity[]) =>
    doings(recorded, ...seen).find(({ kind }) => kind === 'typing')!;
  const where = { left: 320, top: 480, right: 410, bottom: 520 };
  const told = { start: 4000, end: 4450, confidence: 1 };
  expect(typed(happened('typing', 4060, box))).toMatchObject({ ...told, ...where });
  // Elsewhere in time, and what is no typing, say nothing of it.
  for (const other of [happened('typing', 9000, box), happened('change', 4060, box)])
    expect(typed(other)).toMatchObject({ ...told, left: 500, top: 500 });
});
