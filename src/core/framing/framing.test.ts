import { LAYOUTS } from '../layout/built-in';
import type { Framing } from '../project/model';
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { counter, emptyProject, facts } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { setLayout } from '../edit/spans';
import { contains } from '../time/ranges';
import { CRISP_SCALE, magnification, sharpLimit, wholeView } from '../scale/sharpness';
import type { PointerTrack } from '../telemetry/pointer-track';
import { secondsToTicks, ticksToSeconds, type Ticks } from '../time/ticks';
import { keepInside, viewAlongPath } from './path';
import { planProject } from './plan';
import { USUAL_TASTE } from './taste';
import { viewAt } from './view';

const TRACK = JSON.parse(
  readFileSync('demo/media/kilnbook-screen.pointer.json', 'utf8'),
) as PointerTrack;
const SCREEN = facts('screen', 'screen', 77.2);
const SOURCES = { footage: { screen: SCREEN }, pointers: { screen: TRACK } };
const FRAME = { width: 1920, height: 1080 };
const LIMIT = sharpLimit(SCREEN, FRAME);

function project() {
  const made = emptyProject();
  placeFootage(made, SCREEN, 0, counter());
  return made;
}

describe('planning the demo', () => {
  const planned = planProject(project(), SOURCES, counter()).framings;

  test('gives a few framings, none beyond the sharp limit, all inside the footage', () => {
    expect(planned.length).toBeGreaterThanOrEqual(3);
    expect(planned.length).toBeLessThanOrEqual(10);
    for (const { rect } of planned) {
      expect(magnification(rect, SCREEN, FRAME)).toBeLessThanOrEqual(LIMIT + 1e-9);
      expect(
        rect.x >= 0 && rect.y >= 0 && rect.x + rect.width <= 2560 && rect.y + rect.height <= 1440,
      ).toBe(true);
    }
  });

  test('is calm: each is held for a while and none overlaps the next', () => {
    planned.forEach((f, i) => {
      expect(ticksToSeconds(f.end - f.start)).toBeGreaterThanOrEqual(USUAL_TASTE.hold);
      const next = planned[i + 1];
      if (next) expect(next.start).toBeGreaterThanOrEqual(f.end);
    });
  });

  test('every press that falls into the hold of a framing is in its view', () => {
    for (const event of TRACK.events.filter((e) => e.type === 'down')) {
      const time = secondsToTicks(event.t / 1000);
      const framing = planned.find((f) =>
        contains({ start: f.start + f.rampIn, end: f.end - f.rampOut }, time),
      );
      if (!framing) continue;
      const [, x, y] = TRACK.samples.findLast((s) => s[0] <= event.t)!;
      const { rect } = framing;
      expect([x, x >= rect.x && x <= rect.x + rect.width]).toEqual([x, true]);
      expect([y, y >= rect.y && y <= rect.y + rect.height]).toEqual([y, true]);
    }
  });

  test('leaves pinned framings alone and plans nothing over them', () => {
    const again = project();
    again.framings = planned.map((f, i) => ({
      ...f,
      pinned: i === 1,
      rect: i === 1 ? { x: 4, y: 4, width: 1280, height: 720 } : f.rect,
    }));
    const next = planProject(again, SOURCES, counter()).framings;
    expect(next.filter((f) => f.pinned)).toEqual([again.framings[1]]);
    next.forEach((f, i) => i && expect(f.start).toBeGreaterThanOrEqual(next[i - 1]!.end));
  });

  test('goes closer only when asked to', () => {
    const closer = planProject(project(), SOURCES, counter(), {
      taste: { ...USUAL_TASTE, limit: 2 },
    }).framings;
    expect(Math.max(...closer.map((f) => magnification(f.rect, SCREEN, FRAME)))).toBeGreaterThan(
      LIMIT * 1.2,
    );
  });

  test('stays out of stretches in which only the presenter is seen', () => {
    const made = project();
    const camera = facts('camera', 'presenter', 80);
    placeFootage(made, camera, 0, counter());
    const sources = { ...SOURCES, footage: { ...SOURCES.footage, camera } };
    setLayout(made, { start: 0, end: secondsToTicks(80) }, LAYOUTS.presenter, counter());
    expect(planProject(made, sources, counter()).framings).toEqual([]);
  });

  test('goes as far as text is rebuilt when asked to, and only where it is', () => {
    const made = project();
    Object.assign(made.canvas, { width: SCREEN.width, height: SCREEN.height });
    const closest = (limit: 'rebuilt' | null) =>
      planProject(made, SOURCES, counter(), { taste: { ...USUAL_TASTE, limit } }).framings.map(
        (f) => magnification(f.rect, SCREEN, made.canvas),
      );
    expect(closest(null)).toEqual([]);
    const closer = closest('rebuilt');
    expect(Math.max(...closer)).toBeGreaterThan(1.3);
    expect(Math.max(...closer)).toBeLessThanOrEqual(CRISP_SCALE + 1e-9);
    made.canvas.crisp = false;
    expect(closest('rebuilt')).toEqual([]);
  });

  test('a recording that is no larger than the frame gets none', () => {
    const small = {
      footage: { screen: { ...SCREEN, width: 1280, height: 720 } },
      pointers: SOURCES.pointers,
    };
    expect(planProject(project(), small, counter()).framings).toEqual([]);
  });
});

describe('views over time', () => {
  const whole = wholeView(SCREEN, FRAME);
  const anyView = fc
    .tuple(
      fc.double({ min: 0.2, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
    )
    .map(([s, x, y]) =>
      keepInside({ x: x * 2560, y: y * 1440, width: 2560 * s, height: 1440 * s }, whole),
    );

  test('the path begins and ends where it should, keeps its shape and never leaves the whole view', () => {
    fc.assert(
      fc.property(anyView, anyView, fc.double({ min: 0, max: 1, noNaN: true }), (from, to, u) => {
        expect(viewAlongPath(from, to, 0, whole)).toEqual(from);
        expect(viewAlongPath(from, to, 1, whole)).toEqual(to);
        const view = viewAlongPath(from, to, u, whole);
        expect(view.width / view.height).toBeCloseTo(16 / 9, 5);
        expect(view.x).toBeGreaterThanOrEqual(-1e-6);
        expect(view.y).toBeGreaterThanOrEqual(-1e-6);
        expect(view.x + view.width).toBeLessThanOrEqual(2560 + 1e-6);
        expect(view.y + view.height).toBeLessThanOrEqual(1440 + 1e-6);
      }),
    );
  });

  test('there is no jump anywhere: neighbouring instants show neighbouring views', () => {
    const framings = planProject(project(), SOURCES, counter()).framings;
    let last = viewAt(framings, 'screen', SCREEN, FRAME, 0).rect;
    for (let time: Ticks = 0; time < secondsToTicks(77); time += secondsToTicks(1 / 60)) {
      const { rect } = viewAt(framings, 'screen', SCREEN, FRAME, time);
      expect(
        Math.abs(rect.width - last.width) + Math.abs(rect.x - last.x) + Math.abs(rect.y - last.y),
      ).toBeLessThan(60);
      last = rect;
    }
  });
});

test('in a box of another shape a framing shows more of the recording, and bars only where it ends', () => {
  const rects = fc
    .record({
      width: fc.integer({ min: 400, max: 2560 }),
      across: fc.double({ min: 0, max: 1, noNaN: true }),
      down: fc.double({ min: 0, max: 1, noNaN: true }),
    })
    .map(({ width, across, down }) => {
      const height = (width * 9) / 16;
      return { width, height, x: across * (2560 - width), y: down * (1440 - height) };
    });
  const stages = fc.record({
    width: fc.integer({ min: 200, max: 1920 }),
    height: fc.integer({ min: 200, max: 1080 }),
  });
  fc.assert(
    fc.property(rects, stages, (rect, stage) => {
      const still: Framing = {
        ...{ id: 'f', start: 0, end: secondsToTicks(9), rampIn: 0, rampOut: 0 },
        ...{ footageId: 'screen', pinned: true, reason: '', rect, endRect: null },
      };
      const view = viewAt([still], 'screen', SCREEN, stage, secondsToTicks(1)).rect;
      expect(view.width).toBeGreaterThanOrEqual(rect.width * 0.98);
      expect(view.height).toBeGreaterThanOrEqual(rect.height * 0.98);
      // A pixel or so comes of bringing a resting view onto the recording's pixels.
      if (view.width <= 2560) {
        expect(view.x).toBeGreaterThanOrEqual(-2);
        expect(view.x + view.width).toBeLessThanOrEqual(2562);
      }
      if (view.height <= 1440) {
        expect(view.y).toBeGreaterThanOrEqual(-2);
        expect(view.y + view.height).toBeLessThanOrEqual(1442);
      }
    }),
  );
});

describe('a slow push', () => {
  const seconds = secondsToTicks;
  const push: Framing = {
    ...{ id: 'f', start: 0, end: seconds(10), rampIn: seconds(1), rampOut: seconds(1) },
    ...{ footageId: 'screen', pinned: true, reason: '' },
    rect: { x: 200, y: 200, width: 1600, height: 900 },
    endRect: { x: 400, y: 300, width: 1200, height: 675 },
  };
  const at = (t: number, framings = [push]) =>
    viewAt(framings, 'screen', SCREEN, FRAME, seconds(t)).rect;

  test('goes from the one rectangle to the other while it rests, with no jump on the way', () => {
    expect(at(1)).toEqual(push.rect);
    expect(at(8.999).width).toBeCloseTo(1200, 0);
    let last = at(0);
    let speed = 0;
    for (let t = 0; t <= 10; t += 1 / 60) {
      const now = at(t);
      const next = now.width - last.width;
      // Whatever it does, from one frame to the next its speed changes by little.
      if (t > 0.05) expect(Math.abs(next - speed)).toBeLessThan(4);
      [last, speed] = [now, next];
    }
    // Between its ramps it only ever goes closer.
    for (let t = 1; t < 8.9; t += 0.1) expect(at(t + 0.1).width).toBeLessThanOrEqual(at(t).width);
  });

  test('leads on to the framing after it from where it has gone', () => {
    const next: Framing = {
      ...{ ...push, id: 'g', start: seconds(10), end: seconds(20), endRect: null },
      rect: { x: 0, y: 0, width: 800, height: 450 },
    };
    const framings = [push, next];
    expect(at(9.999, framings).width).toBeCloseTo(1200, 0);
    expect(at(10, framings)).toEqual(push.endRect);
  });
});
