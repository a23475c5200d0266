import fc from 'fast-check';
import { counter, emptyProject, facts } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { setLayout } from '../edit/spans';
import { LAYOUTS } from '../layout/built-in';
import type { PointerTrack } from '../telemetry/pointer-track';
import { secondsToTicks } from '../time/ticks';
import { isWithin } from '../scale/rect';
import { insetAt, shareCovered, viewsBeside } from './inset';
import { planProject } from './plan';
import { viewAt } from './view';

const FRAME = { width: 1920, height: 1080 };
const SIZE = { width: 3840, height: 2160 };
const WHOLE = { x: 0, y: 0, ...SIZE };

/** A screen with a presenter in its corner, and presses at a spot of it after ten seconds. */
function setUp(x: number, y: number) {
  const screen = { ...facts('screen', 'screen', 40), ...SIZE };
  const camera = facts('camera', 'presenter', 40);
  const project = emptyProject();
  const newId = counter();
  placeFootage(project, camera, 0, newId);
  placeFootage(project, screen, 0, newId);
  const times = [10, 11.5, 13, 14.5, 16].map((s) => s * 1000);
  const track: PointerTrack = {
    ...{ format: 'vistum-pointer', version: 1, ...SIZE },
    samples: [
      [0, 1900, 1000],
      [9000, 1900, 1000],
      [9600, x, y],
      [40_000, x, y],
    ],
    events: times.flatMap((t) => [
      { t, type: 'down' as const, button: 0 },
      { t: t + 80, type: 'up' as const, button: 0 },
    ]),
  };
  const sources = { footage: { screen, camera }, pointers: { screen: track } };
  return { project, screen, sources, times };
}

test('what the presenter covers is told in shares of the screen, and nothing where none is', () => {
  const { project, sources } = setUp(100, 100);
  const inset = insetAt(project, sources, secondsToTicks(5))!;
  // In the corner at the bottom right, a third of the picture wide at most.
  expect(inset.x).toBeGreaterThan(0.6);
  expect(inset.y).toBeGreaterThan(0.4);
  expect(inset.x + inset.width).toBeLessThan(1);
  expect(inset.y + inset.height).toBeLessThan(1);
  setLayout(project, { start: 0, end: secondsToTicks(40) }, LAYOUTS.screen, counter());
  expect(insetAt(project, sources, secondsToTicks(5))).toBeNull();
  setLayout(project, { start: 0, end: secondsToTicks(40) }, LAYOUTS.side, counter());
  expect(insetAt(project, sources, secondsToTicks(5))).toBeNull();
});

test('views beside the presenter show a rectangle whole and uncovered, and lie within', () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  const inset = { x: 0.7, y: 0.6, width: 0.2, height: 0.35 };
  fc.assert(
    fc.property(share, share, share, share, (x, y, left, top) => {
      const view = { x: left * 1920, y: top * 1080, width: 1920, height: 1080 };
      const rect = { x: x * 3700, y: y * 2000, width: 120, height: 60 };
      for (const moved of viewsBeside(view, rect, inset, WHOLE)) {
        expect(shareCovered(rect, moved, inset)).toBe(0);
        expect(isWithin(rect, moved)).toBe(true);
        expect(isWithin(moved, WHOLE)).toBe(true);
        expect([moved.width, moved.height]).toEqual([1920, 1080]);
      }
    }),
  );
  // In the middle of the recording there is room on every side that the view has.
  const view = { x: 1000, y: 600, width: 1920, height: 1080 };
  const under = { x: 1000 + 0.75 * 1920, y: 600 + 0.7 * 1080, width: 60, height: 40 };
  expect(shareCovered(under, view, inset)).toBe(1);
  expect(viewsBeside(view, under, inset, WHOLE).length).toBeGreaterThanOrEqual(2);
});

test.each([
  [3150, 1750],
  [3000, 1600],
  [2800, 1700],
])('presses at %i, %i, which the presenter would stand over, are seen beside him', (x, y) => {
  const { project, screen, sources, times } = setUp(x, y);
  const { framings } = planProject(project, sources, counter());
  expect(framings).toHaveLength(1);
  for (const ms of times) {
    const time = secondsToTicks(ms / 1000);
    const { rect, moving } = viewAt(framings, 'screen', screen, FRAME, time);
    expect(moving).toBe(false);
    const inset = insetAt({ ...project, framings }, sources, time)!;
    const spot = { x: x - 8, y: y - 8, width: 16, height: 16 };
    expect([isWithin(spot, rect), shareCovered(spot, rect, inset)]).toEqual([true, 0]);
  }
});
