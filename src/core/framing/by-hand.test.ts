import fc from 'fast-check';
import { showWhole } from '../edit/framings';
import { moveClips } from '../edit/clips';
import { EditError } from '../edit/error';
import { counter, demoProject, emptyProject, facts, frame, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { copySpan, pasteSpan } from '../edit/span-copy';
import { addSpan } from '../edit/spans';
import { structuralFaults } from '../project/structure';
import type { Framing, Project } from '../project/model';
import type { Sources } from '../project/sources';
import { intersect, isWithin, padded, type Rect } from '../scale/rect';
import type { PointerTrack } from '../telemetry/pointer-track';
import { secondsToTicks } from '../time/ticks';
import type { Page } from '../vision/page';
import { framingBefore, magnified, viewInOther, viewOfDrawn } from './by-hand';
import { edgesOf } from './edge-index';
import { lookAtFraming } from './other-views';
import { snapMoved, snapSized, textBlocks, viewsOnPage } from './page-edges';
import { USUAL_TASTE } from './taste';
import { viewAt } from './view';

const FRAME = { width: 1920, height: 1080 };
const WHOLE = { x: 0, y: 0, width: 2560, height: 1440 };
const findScreen = (project: Project) => {
  const lane = project.lanes.find(({ kind }) => kind === 'screen')!;
  return { lane, clip: lane.clips[0]! };
};
const shape = ({ width, height }: Rect) => width / height;
const rects = fc
  .tuple(
    fc.nat(2500),
    fc.nat(1400),
    fc.integer({ min: 9, max: 2500 }),
    fc.integer({ min: 9, max: 1400 }),
  )
  .map(([x, y, w, h]) => ({ x, y, width: Math.min(w, 2560 - x), height: Math.min(h, 1440 - y) }));

test('what is drawn lies in the view that comes of it, which has the frame’s shape', () => {
  fc.assert(
    fc.property(rects, (drawn) => {
      const view = viewOfDrawn(drawn, WHOLE, FRAME);
      expect(shape(view)).toBeCloseTo(16 / 9, 6);
      expect(isWithin(view, WHOLE)).toBe(true);
      // Beginning on even pixels, it may leave out the last pixels of the recording itself.
      expect(isWithin(intersect(drawn, padded(WHOLE, -2)), view)).toBe(true);
    }),
  );
});

test('magnifying keeps the middle where it can, the shape always, and stays within the whole', () => {
  fc.assert(
    fc.property(rects, fc.double({ min: 0.1, max: 20, noNaN: true }), (drawn, to) => {
      const view = viewOfDrawn(drawn, WHOLE, FRAME);
      const next = magnified(view, WHOLE, to);
      expect(isWithin(next, { ...WHOLE, width: 2560.001, height: 1440.001 })).toBe(true);
      expect(2560 / next.width).toBeCloseTo(Math.min(8, Math.max(1, to)), 6);
    }),
  );
  const middle = magnified({ x: 960, y: 540, width: 640, height: 360 }, WHOLE, 8);
  expect([middle.x + middle.width / 2, middle.y + middle.height / 2]).toEqual([1280, 720]);
});

const page: Page = {
  ...{ from: 0, to: 9000 },
  lines: [
    { x: 420, y: 220, width: 300, height: 24, letters: 14 },
    { x: 420, y: 256, width: 420, height: 24, letters: 14 },
    { x: 420, y: 700, width: 200, height: 24, letters: 14 },
  ],
  panels: [
    { x: 400, y: 200, width: 900, height: 560 },
    { x: 100, y: 100, width: 2300, height: 1200 },
  ],
};

test('lines under one another are a block, others are not', () => {
  expect(textBlocks(page)).toEqual([
    { x: 420, y: 220, width: 420, height: 60 },
    { x: 420, y: 700, width: 200, height: 24 },
  ]);
});

test('views of what lies at a spot hold it whole, the closest first, and cut nothing of it', () => {
  const views = viewsOnPage(page, { x: 500, y: 240 }, WHOLE, FRAME, 4);
  expect(views.map((v) => Math.round(v.width))).toEqual(
    [...views.map((v) => Math.round(v.width))].sort((a, b) => a - b),
  );
  expect(views).toHaveLength(2);
  expect(isWithin(textBlocks(page)[0]!, views[0]!)).toBe(true);
  expect(isWithin(page.panels[0]!, views[1]!)).toBe(true);
  expect(edgesOf(page).cutsOf(views[1]!)).toBe(0);
  expect(viewsOnPage(page, { x: 20, y: 20 }, WHOLE, FRAME, 4)).toEqual([]);
});

test('edges that are moved or sized meet panels and lines within reach, and nothing else', () => {
  const view = { x: 380, y: 150, width: 1280, height: 720 };
  const room = 2560 * 0.006;
  expect(snapMoved(view, page, WHOLE, 20).x).toBeCloseTo(400 - room, 6);
  expect(snapMoved(view, page, WHOLE, 1)).toEqual(view);
  const sized = snapSized({ x: 200, y: 180, width: 1110, height: 624.375 }, 1, 1, page, WHOLE, 20);
  expect(sized.x + sized.width).toBeCloseTo(1300 + room, 6);
  expect([sized.x, sized.y]).toEqual([200, 180]);
  expect(shape(sized)).toBeCloseTo(16 / 9, 6);
});

test('the whole screen comes back where it is asked for, and what was pinned later stays', () => {
  const project = demoProject(counter());
  const at = frame(150);
  const before = project.framings.length;
  showWhole(project, at, secondsToTicks(1));
  expect(project.framings).toHaveLength(before);
  const whole = viewAt([], 'screen', SOURCES.footage.screen!, FRAME, 0).rect;
  const viewed = (time: number) =>
    viewAt(project.framings, 'screen', SOURCES.footage.screen!, FRAME, time).rect;
  expect(viewed(at - 1).width).toBeLessThan(whole.width);
  expect(viewed(at + secondsToTicks(1.5))).toEqual(whole);
  expect([...structuralFaults(project, SOURCES)]).toEqual([]);
  // One that is only just coming goes altogether.
  showWhole(project, frame(70), secondsToTicks(1));
  expect(project.framings).toHaveLength(before - 1);
  expect(() => showWhole(project, frame(70), secondsToTicks(1))).toThrow(EditError);
});

test('framings and callouts go along with the clip that they stand on, and no others do', () => {
  const project = demoProject(counter());
  const { clip } = findScreen(project);
  const [framing, callout] = [project.framings[2]!, project.callouts[2]!];
  const frameCallout = { ...callout, id: 'stays', anchor: { to: 'frame' as const } };
  addSpan(project, 'callouts', frameCallout);
  const before = structuredClone(project);
  moveClips(project, [clip.id], frame(45));
  const by = frame(45);
  const find = <T extends { id: string }>(list: readonly T[], id: string) =>
    list.find((s) => s.id === id)!;
  expect(find(project.framings, framing.id).start).toBe(
    find(before.framings, framing.id).start + by,
  );
  expect(find(project.callouts, callout.id).end).toBe(find(before.callouts, callout.id).end + by);
  expect(find(project.callouts, 'stays').start).toBe(frameCallout.start);
  // The first begins before the recording does: it is not of this clip alone.
  expect(find(project.callouts, before.callouts[0]!.id).start).toBe(before.callouts[0]!.start);
  expect([...structuralFaults(project, SOURCES)]).toEqual([]);
});

test('what is copied and pasted is the same elsewhere, and a view fits a recording of another size', () => {
  const project = demoProject(counter());
  const [framing] = project.framings;
  const copied = copySpan(project, SOURCES, framing!.id)!;
  const newId = () => 'pasted';
  const { list, id } = pasteSpan(project, SOURCES, copied, frame(1790), 'screen', newId);
  const pasted = project[list].find((s) => s.id === id) as Framing;
  expect(pasted).toMatchObject({ start: frame(1790), rect: framing!.rect, pinned: true });
  expect(pasted.end - pasted.start).toBe(framing!.end - framing!.start);
  expect(framingBefore(project, pasted.start)?.end).toBeLessThanOrEqual(pasted.start);
  const half = viewInOther(framing!.rect, WHOLE, { x: 0, y: 0, width: 1280, height: 720 });
  expect(half.width).toBe(framing!.rect.width / 2);
  // A callout whose recording is not here stands on the one that is.
  const callout = copySpan(project, SOURCES, project.callouts[0]!.id)!;
  const elsewhere: Sources = { footage: { other: facts('other', 'screen', 9) }, pointers: {} };
  const other = emptyProject();
  placeFootage(other, elsewhere.footage.other!, 0, counter());
  pasteSpan(other, elsewhere, callout, 0, 'other', newId);
  expect(other.callouts[0]?.anchor).toEqual({ to: 'footage', footageId: 'other' });
  expect(() => pasteSpan(other, elsewhere, callout, 0, null, newId)).toThrow(EditError);
});

describe('what a framing is for', () => {
  const press = (t: number) => [
    { t, type: 'down' as const },
    { t: t + 90, type: 'up' as const },
  ];
  const track: PointerTrack = {
    ...{ format: 'vistum-pointer', version: 1, width: 2560, height: 1440 },
    samples: [
      [0, 700, 400],
      [3000, 700, 400],
      [3400, 900, 520],
      [5000, 900, 520],
      [5400, 2400, 1300],
      [9000, 2400, 1300],
    ],
    events: [...press(2500), ...press(4500), ...press(7000)],
  };
  const sources = { footage: SOURCES.footage, pointers: { screen: track } };
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.screen!, 0, counter());
  const framing: Framing = {
    ...{ id: 'f', start: 0, end: secondsToTicks(6), rampIn: 0, rampOut: 0, footageId: 'screen' },
    ...{ rect: { x: 400, y: 250, width: 640, height: 360 }, endRect: null },
    ...{ pinned: true, reason: '' },
  };
  addSpan(project, 'framings', framing);

  test('is told with what it leaves out, and other views show every press that was recorded', () => {
    const { seen, missed, others } = lookAtFraming(project, sources, framing, USUAL_TASTE);
    const presses = (all: typeof seen) => all.filter(({ kind }) => kind === 'press').length;
    expect([presses(seen), presses(missed)]).toEqual([2, 0]);
    const narrow = { ...framing, rect: { x: 600, y: 300, width: 256, height: 144 } };
    const look = lookAtFraming(project, sources, narrow, USUAL_TASTE);
    expect([presses(look.seen), presses(look.missed)]).toEqual([1, 1]);
    // At the corner that a turn takes out of the picture, and at the one that it takes in.
    const turned = [40, -40].map((turn) => {
      const there = lookAtFraming(project, sources, { ...framing, turn }, USUAL_TASTE);
      return [presses(there.seen), presses(there.missed)];
    });
    expect(turned).toEqual([
      [1, 1],
      [2, 0],
    ]);
    expect(others.length).toBeGreaterThan(0);
    for (const { rect, magnification } of [...others, ...look.others]) {
      expect(isWithin({ x: 700, y: 400, width: 200, height: 120 }, rect)).toBe(true);
      expect(magnification).toBeLessThanOrEqual(2560 / 1920 + 1e-9);
    }
  });

  test('one in which nothing is done says so and offers nothing', () => {
    const late = { ...framing, start: secondsToTicks(20), end: secondsToTicks(25) };
    expect(lookAtFraming(project, sources, late, USUAL_TASTE)).toEqual({
      ...{ seen: [], missed: [], others: [] },
    });
  });
});
