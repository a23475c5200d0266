import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { counter, emptyProject, facts } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import type { Framing } from '../project/model';
import { magnification, sharpLimit, wholeView } from '../scale/sharpness';
import type { PointerEvent, PointerSample, PointerTrack } from '../telemetry/pointer-track';
import { overlaps } from '../time/ranges';
import { secondsToTicks, ticksToSeconds } from '../time/ticks';
import { costsOfPlan, planProject } from './plan';
import { totalOf } from './cost';
import { SHORTEST_HOLD, USUAL_TASTE, type Taste } from './taste';
import { viewAt } from './view';

const FRAME = { width: 1920, height: 1080 };
const DEMO = JSON.parse(
  readFileSync('demo/media/kilnbook-screen.pointer.json', 'utf8'),
) as PointerTrack;

/** Something that a made-up person does: they wait, go somewhere, and do it there. */
interface Deed {
  readonly wait: number;
  readonly x: number;
  readonly y: number;
  readonly kind: 'press' | 'type' | 'drag' | 'scroll' | 'fidget';
}

/** A track of deeds one after the other, in a recording of some size; and how long it is. */
function trackOf(
  deeds: readonly Deed[],
  width: number,
  height: number,
): PointerTrack & { ms: number } {
  const samples: PointerSample[] = [[0, width / 2, height / 2]];
  const events: PointerEvent[] = [];
  let t = 0;
  const go = (ms: number, x: number, y: number) => {
    t += ms;
    samples.push([t, Math.round(x), Math.round(y)]);
  };
  const down = (ms: number) => {
    events.push({ t, type: 'down', button: 0 });
    t += ms;
  };
  const up = () => events.push({ t, type: 'up', button: 0 });
  for (const { wait, kind, ...share } of deeds) {
    const x = share.x * (width - 1);
    const y = share.y * (height - 1);
    const [, x0, y0] = samples[samples.length - 1]!;
    go(wait, x0, y0);
    go(300, x, y);
    if (kind === 'fidget') {
      for (let i = 0; i < 30; i++) go(220, x + 9 * Math.sin(i * 2.1), y + 7 * Math.cos(i * 1.3));
      continue;
    }
    go(100, x, y);
    down(80);
    if (kind === 'drag') go(900, Math.min(width - 1, x + 240), y);
    up();
    t += 60;
    if (kind === 'type')
      for (let i = 0; i < 20; i++) events.push({ t: (t += 120), type: 'key', key: 'a' });
    if (kind === 'scroll')
      for (let i = 0; i < 8; i++) events.push({ t: (t += 90), type: 'wheel', dy: 100 });
  }
  samples.sort((a, b) => a[0] - b[0]);
  return { format: 'vistum-pointer', version: 1, width, height, samples, events, ms: t };
}

function setUp(track: PointerTrack, seconds: number, size = { width: 2560, height: 1440 }) {
  const screen = { ...facts('screen', 'screen', seconds), ...size };
  const project = emptyProject();
  placeFootage(project, screen, 0, counter());
  return { project, screen, sources: { footage: { screen }, pointers: { screen: track } } };
}

const share = fc.double({ min: 0, max: 1, noNaN: true });
const anyDeed = fc.record({
  wait: fc.oneof(fc.integer({ min: 0, max: 1500 }), fc.integer({ min: 1500, max: 15_000 })),
  x: share,
  y: share,
  kind: fc.constantFrom<Deed['kind']>(
    'press',
    'press',
    'press',
    'type',
    'drag',
    'scroll',
    'fidget',
  ),
});
const anySize = fc.constantFrom(
  { width: 2560, height: 1440 },
  { width: 3840, height: 2160 },
  { width: 3440, height: 1440 },
  { width: 1280, height: 1024 },
);
const anyTaste = fc.record({
  lively: share,
  hold: fc.double({ min: SHORTEST_HOLD, max: 4, noNaN: true }),
  margin: fc.double({ min: 0, max: 0.3, noNaN: true }),
  between: fc.boolean(),
  limit: fc.constantFrom(null, 1.3, 3),
});

/** All stretches in which the view rests, with it. */
function restsIn(framings: readonly Framing[], end: number) {
  const rests: { start: number; end: number; rect: Framing['rect'] | null }[] = [];
  let from = 0;
  for (const [i, f] of framings.entries()) {
    const joined = framings[i - 1]?.end === f.start;
    if (!joined) rests.push({ start: from, end: f.start, rect: null });
    const next = framings[i + 1];
    rests.push({
      start: f.start + f.rampIn,
      end: next?.start === f.end ? f.end : f.end - f.rampOut,
      rect: f.rect,
    });
    from = f.end;
  }
  rests.push({ start: from, end, rect: null });
  return rests;
}

/** Ends of framings at which the view jumps. */
const cutsIn = (framings: readonly Framing[]): number[] =>
  framings.flatMap((f, i) => (f.rampOut === 0 && framings[i + 1]?.start !== f.end ? [f.end] : []));

describe('whatever a person did', () => {
  test('presses are in view, rests are long enough, views have the frame’s shape and lie within', () => {
    fc.assert(
      fc.property(
        fc.array(anyDeed, { minLength: 1, maxLength: 25 }),
        anySize,
        anyTaste,
        (deeds, size, taste) => {
          const track = trackOf(deeds, size.width, size.height);
          const seconds = track.ms / 1000 + 3;
          const { project, screen, sources } = setUp(track, seconds, size);
          const { framings } = planProject(project, sources, counter(), { taste });
          const whole = wholeView(screen, FRAME);
          const limit = Math.max(taste.limit ?? sharpLimit(screen, FRAME), 1);
          for (const { rect, rampIn, rampOut, start, end } of framings) {
            expect(magnification(rect, screen, FRAME)).toBeLessThanOrEqual(limit + 1e-9);
            expect(rect.width / rect.height).toBeCloseTo(16 / 9, 6);
            expect(Math.abs(rect.x % 2) + Math.abs(rect.y % 2)).toBe(0);
            expect(rect.x).toBeGreaterThanOrEqual(Math.floor(whole.x) - 1);
            expect(rect.x + rect.width).toBeLessThanOrEqual(whole.x + whole.width + 1);
            expect(rect.y).toBeGreaterThanOrEqual(Math.floor(whole.y) - 1);
            expect(rect.y + rect.height).toBeLessThanOrEqual(whole.y + whole.height + 1);
            expect(rampIn + rampOut).toBeLessThanOrEqual(end - start);
          }
          expect(cutsIn(framings).filter((end) => end < secondsToTicks(seconds) - 1e9)).toEqual([]);
          const frame = secondsToTicks(1 / 30);
          const total = project.lanes.find((l) => l.kind === 'screen')!.clips[0]!.duration;
          // A session that is shorter than a hold has one view all through.
          const rests = framings.length ? restsIn(framings, total) : [];
          for (const [i, rest] of rests.entries()) {
            // A framing that lasts to the end leaves nothing behind it.
            if (i === rests.length - 1 && rest.end - rest.start <= frame) continue;
            expect(ticksToSeconds(rest.end - rest.start)).toBeGreaterThanOrEqual(
              Math.max(SHORTEST_HOLD, taste.hold) - 0.001,
            );
          }
          for (const { t, type } of track.events) {
            if (type !== 'down') continue;
            const time = secondsToTicks(t / 1000);
            const { rect, moving } = viewAt(framings, 'screen', screen, FRAME, time);
            const [, x, y] = track.samples.findLast((s) => s[0] <= t)!;
            expect([moving && framings.length > 0, x >= rect.x, x <= rect.x + rect.width]).toEqual([
              ...[false, true, true],
            ]);
            expect([y >= rect.y - 1, y <= rect.y + rect.height + 1]).toEqual([true, true]);
          }
        },
      ),
      { numRuns: 120 },
    );
  });

  test('nothing moves for a pointer that only fidgets', () => {
    fc.assert(
      fc.property(fc.array(anyDeed, { minLength: 1, maxLength: 12 }), anyTaste, (deeds, taste) => {
        const fidgets = deeds.map((deed): Deed => ({ ...deed, kind: 'fidget' }));
        const track = trackOf(fidgets, 3840, 2160);
        const size = { width: 3840, height: 2160 };
        const { project, sources } = setUp(track, track.ms / 1000 + 2, size);
        expect(planProject(project, sources, counter(), { taste }).framings).toEqual([]);
      }),
      { numRuns: 30 },
    );
  });

  test('the same again is the same plan, and one planned over itself too', () => {
    fc.assert(
      fc.property(fc.array(anyDeed, { minLength: 3, maxLength: 20 }), (deeds) => {
        const track = trackOf(deeds, 3840, 2160);
        const size = { width: 3840, height: 2160 };
        const { project, sources } = setUp(track, track.ms / 1000 + 2, size);
        const first = planProject(project, sources, counter());
        expect(planProject(project, sources, counter())).toEqual(first);
        project.framings = first.framings;
        expect(planProject(project, sources, counter()).framings).toEqual(first.framings);
      }),
      { numRuns: 30 },
    );
  });

  test('pinned framings and those that reach beyond the range stay, and nothing lies over them', () => {
    fc.assert(
      fc.property(
        fc.array(anyDeed, { minLength: 6, maxLength: 20 }),
        fc.array(fc.boolean(), { minLength: 20, maxLength: 20 }),
        share,
        (deeds, pins, from) => {
          const track = trackOf(deeds, 3840, 2160);
          const size = { width: 3840, height: 2160 };
          const { project, sources } = setUp(track, track.ms / 1000 + 2, size);
          const lively: Taste = { ...USUAL_TASTE, lively: 1 };
          project.framings = planProject(project, sources, counter(), {
            taste: lively,
          }).framings.map((f, i) => ({ ...f, id: `old-${i}`, pinned: pins[i % pins.length]! }));
          const range = {
            start: secondsToTicks((from * track.ms) / 1000),
            end: secondsToTicks((from * track.ms) / 1000 + 20),
          };
          const stay = project.framings.filter(
            (f) => f.pinned || f.start < range.start || f.end > range.end,
          );
          const { framings } = planProject(project, sources, counter(), { range });
          expect(framings.filter((f) => stay.some(({ id }) => id === f.id))).toEqual(stay);
          const total = project.lanes.find((l) => l.kind === 'screen')!.clips[0]!.duration;
          expect(cutsIn(framings).filter((end) => end < total - 1e8)).toEqual(
            cutsIn(stay).filter((end) => end < total - 1e8 && cutsIn(framings).includes(end)),
          );
          framings.forEach((f, i) => {
            expect(framings.slice(i + 1).some((g) => overlaps(f, g))).toBe(false);
            if (!stay.includes(f)) expect(f.start).toBeGreaterThanOrEqual(range.start - 1e7);
          });
        },
      ),
      { numRuns: 40 },
    );
  });
});

test('presses at two far corners in turn are seen in a view that holds both', () => {
  const deeds = Array.from({ length: 18 }, (_, i): Deed => ({
    ...{ wait: 900, kind: 'press' },
    ...(i % 2 ? { x: 0.04, y: 0.05 } : { x: 0.96, y: 0.95 }),
  }));
  const track = trackOf(deeds, 2560, 1440);
  const { project, sources } = setUp(track, track.ms / 1000 + 4);
  expect(planProject(project, sources, counter()).framings).toEqual([]);
});

test('work in one place is seen close up, and the whole again where for long nothing happens', () => {
  const near = { x: 0.25, y: 0.3 };
  const deeds: Deed[] = [
    { wait: 4000, ...near, kind: 'press' },
    { wait: 800, ...near, kind: 'type' },
    { wait: 700, ...near, kind: 'press' },
    { wait: 25_000, ...near, kind: 'press' },
    { wait: 500, ...near, kind: 'type' },
    { wait: 800, ...near, kind: 'press' },
  ];
  const track = trackOf(deeds, 3840, 2160);
  const { project, screen, sources } = setUp(track, track.ms / 1000 + 12, {
    ...{ width: 3840, height: 2160 },
  });
  const { framings } = planProject(project, sources, counter());
  expect(framings).toHaveLength(2);
  for (const f of framings) {
    expect(magnification(f.rect, screen, FRAME)).toBeCloseTo(2, 6);
    expect(f.reason).toMatch(/press ×3, typing/);
  }
  // With the whole between not asked for, one view stays.
  const taste = { ...USUAL_TASTE, between: false, lively: 0 };
  expect(planProject(project, sources, counter(), { taste }).framings.length).toBeLessThanOrEqual(
    2,
  );
});

test('a livelier taste costs its own terms less, and moves at least as often', () => {
  const { project, sources } = setUp(DEMO, 77.2);
  const moves = [0, 0.35, 0.65, 1].map((lively) => {
    const plan = planProject(project, sources, counter(), { taste: { ...USUAL_TASTE, lively } });
    expect(totalOf(costsOfPlan(plan))).toBeGreaterThan(0);
    return plan.framings.length;
  });
  expect(moves[3]!).toBeGreaterThanOrEqual(moves[0]!);
  expect(moves[2]!).toBeGreaterThanOrEqual(3);
});

test('an hour of work is planned at once', () => {
  const kinds: Deed['kind'][] = ['press', 'type', 'press', 'scroll', 'fidget', 'drag'];
  const deeds = Array.from({ length: 900 }, (_, i): Deed => ({
    ...{ wait: 600 + ((i * 7919) % 5000), kind: kinds[i % kinds.length]! },
    ...{ x: ((i * 389) % 1000) / 1000, y: ((i * 593) % 1000) / 1000 },
  }));
  const track = trackOf(deeds, 3840, 2160);
  const size = { width: 3840, height: 2160 };
  const { project, sources } = setUp(track, track.ms / 1000 + 2, size);
  const { framings } = planProject(project, sources, counter());
  expect(track.ms).toBeGreaterThan(3_500_000);
  expect(framings.length).toBeGreaterThan(20);
});
