import { UNPOSED } from '../callout/keyframes';
import fc from 'fast-check';
import { counter, emptyProject, frame, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { addSpan } from '../edit/spans';
import type { Project } from '../project/model';
import { secondsToTicks } from '../time/ticks';
import type { PrivateFound, PrivateStretch } from './log';
import type { PrivateKind } from './patterns';
import { coversFor } from './proposed';
import { openPlaces } from './shown';

/** A project that shows a recording of 60 s from its second 0 on. */
function shown(newId = counter()): Project {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.screen!, 0, newId);
  return project;
}

const stretch = (from: number, to: number, x = 400, y = 300): PrivateStretch => ({
  ...{ from, to, rect: { x, y, width: 200, height: 16 } },
});
const found = (stretches: PrivateStretch[], kind: PrivateKind = 'email'): PrivateFound => ({
  ...{ kind, hint: 'il••••le', confidence: 0.9, stretches },
});
const open = (project: Project, all: readonly PrivateFound[]) =>
  openPlaces(project, SOURCES, 'screen', all);

test('what the timeline shows and nothing covers is open, from when to when', () => {
  const project = shown();
  const [place, ...more] = open(project, [found([stretch(2000, 5000)])]);
  expect(more).toEqual([]);
  expect(place).toMatchObject({ found: 0, start: secondsToTicks(2), end: secondsToTicks(5) });
  expect(open(project, [found([stretch(70_000, 80_000)])])).toEqual([]);
});

test('a cover over it closes it; one that is too small, or ends before, does not', () => {
  const all = [found([stretch(2000, 5000)])];
  const cover = (end: number, width: number) => {
    const project = shown();
    addSpan(project, 'callouts', {
      ...{ id: 'c', kind: 'cover', way: 'solid', color: '#1e2a32', strength: 24 },
      ...{ start: 0, end: frame(end), anchor: { to: 'footage', footageId: 'screen' }, ...UNPOSED },
      rect: { x: 396, y: 296, width, height: 24 },
    });
    return open(project, all);
  };
  expect(cover(200, 208)).toEqual([]);
  expect(cover(200, 120)).toHaveLength(1);
  expect(cover(120, 208)).toHaveLength(1);
});

test('what lies beyond the view is not seen', () => {
  const project = shown();
  addSpan(project, 'framings', {
    ...{ id: 'f', start: 0, end: frame(600), rampIn: frame(1), rampOut: frame(1) },
    ...{ footageId: 'screen', rect: { x: 1280, y: 720, width: 1280, height: 720 } },
    ...{ endRect: null, pinned: true, reason: '' },
  });
  expect(open(project, [found([stretch(2000, 5000)])])).toEqual([]);
  expect(open(project, [found([stretch(2000, 5000, 1500, 900)])])).toHaveLength(1);
});

test('covers hide what is seen turned, and those beside it do not', () => {
  const all = [found([stretch(2000, 5000, 1200, 700)])];
  const turnedWith = (
    rect: { x: number; y: number; width: number; height: number },
    to: string,
  ) => {
    const project = shown();
    addSpan(project, 'framings', {
      ...{ id: 'f', start: 0, end: frame(600), rampIn: 0, rampOut: 0, turn: 14 },
      ...{ footageId: 'screen', rect: { x: 700, y: 400, width: 1280, height: 720 } },
      ...{ endRect: null, pinned: true, reason: '' },
    });
    addSpan(project, 'callouts', {
      ...{ id: 'c', kind: 'cover', way: 'solid', color: '#1e2a32', strength: 24, rect },
      ...{ start: 0, end: frame(600), ...UNPOSED },
      anchor: to === 'frame' ? { to } : { to: 'footage', footageId: 'screen' },
    });
    return open(project, all);
  };
  const over = { x: 1196, y: 696, width: 208, height: 24 };
  expect(turnedWith(over, 'screen')).toEqual([]);
  expect(turnedWith({ ...over, width: 100 }, 'screen')).toHaveLength(1);
  // In the frame's pixels what is turned reaches further down than its own height.
  const middle = { x: 700, y: 340, width: 400, height: 200 };
  expect(turnedWith(middle, 'frame')).toEqual([]);
  expect(turnedWith({ ...middle, height: 100 }, 'frame')).toHaveLength(1);
});

test('a frozen clip shows what its picture shows', () => {
  const project = shown();
  const clip = project.lanes.find(({ kind }) => kind === 'screen')!.clips[0]!;
  Object.assign(clip, { speed: 0, source: secondsToTicks(3) });
  expect(open(project, [found([stretch(2000, 5000)])])).toHaveLength(1);
  expect(open(project, [found([stretch(4000, 5000)])])).toEqual([]);
});

test('the covers that are proposed close the first place of each thing, whatever it is', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 40_000 }),
      fc.integer({ min: 200, max: 9000 }),
      fc.integer({ min: 0, max: 2300 }),
      fc.integer({ min: 0, max: 1400 }),
      fc.constantFrom<PrivateKind>('email', 'card', 'word'),
      (from, length, x, y, kind) => {
        const newId = counter();
        const project = shown(newId);
        const all = [found([stretch(from, from + length, x, y)], kind)];
        const covers = coversFor(project, 'screen', all, open(project, all), newId);
        expect(covers).toHaveLength(1);
        for (const { callout } of covers) addSpan(project, 'callouts', callout);
        expect(open(project, all)).toEqual([]);
      },
    ),
    { numRuns: 60 },
  );
});

test('one thing at several places has one cover, at the first; keys are painted over', () => {
  const newId = counter();
  const project = shown(newId);
  const all = [
    found([stretch(6000, 8000, 100, 500), stretch(2000, 5000)]),
    found([stretch(3000, 5000, 900, 300)], 'key'),
  ];
  const covers = coversFor(project, 'screen', all, open(project, all), newId);
  expect(covers).toHaveLength(2);
  expect(covers[0]!.callout).toMatchObject({ start: secondsToTicks(2), way: 'blur' });
  expect(covers[0]!.stretches).toHaveLength(2);
  expect(covers[1]!.callout).toMatchObject({ way: 'solid' });
});
