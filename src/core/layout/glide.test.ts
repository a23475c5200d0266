import fc from 'fast-check';
import { counter, demoProject, SOURCES } from '../edit/fixture';
import { setLayout } from '../edit/spans';
import { planFrame } from '../frame/plan-frame';
import type { VideoLayer } from '../frame/plan';
import type { Project } from '../project/model';
import { frontmost, presenterOf, sceneAt, screenOf } from '../scene/scene';
import { secondsToTicks } from '../time/ticks';
import { LAYOUT_KINDS, LAYOUTS, USUAL_LAYOUT } from './built-in';
import { layoutMomentAt } from './glide';
import { plainGround } from './ground';
import type { Layout, PresenterBox } from './model';
import { PEBBLE, withPoint } from './own-shape';

const at = secondsToTicks;
const FRAME = { width: 1920, height: 1080 };

/** From the first layout to the second at 10 s, which ends at 20 s. */
function gliding(first: Layout, second: Layout, seconds: number): Project {
  const project = demoProject(counter());
  Object.assign(project, { layouts: [], framings: [], callouts: [] });
  setLayout(project, { start: at(4), end: at(10) }, first, counter(), { glide: at(seconds) });
  setLayout(project, { start: at(10), end: at(20) }, second, counter(), { glide: at(seconds) });
  return project;
}

const own: Layout = {
  ...LAYOUTS.side,
  ...{ name: 'Desk', background: '#204060' },
  screen: { box: { x: 0.3, y: 0.05, width: 0.65, height: 0.8 } },
  presenter: {
    box: { x: 0.02, y: 0.5, width: 0.25, height: 0.45 },
    ...{ shape: 'rounded', feather: 0.02, center: { x: 0.4, y: 0.4 }, crop: 0.7 },
    ring: { width: 8, color: '#c2412d' },
  },
};
const pebble: Layout = {
  ...own,
  presenter: { ...(own.presenter as PresenterBox), shape: 'own', path: withPoint(PEBBLE, 2) },
};
const layouts = fc.constantFrom<Layout>(
  ...LAYOUT_KINDS.map((kind) => LAYOUTS[kind]),
  ...[own, pebble],
);

/** Where both are at an instant, by what the picture shows. */
function places(project: Project, time: number) {
  const scene = sceneAt(project, SOURCES, time);
  const presenter = presenterOf(scene, frontmost(scene, 'presenter')!);
  return {
    screen: screenOf(scene, frontmost(scene, 'screen')!).stage,
    presenter: presenter?.place.destination ?? null,
  };
}

test('at both ends the picture is that of the layouts at rest', () => {
  fc.assert(
    fc.property(layouts, layouts, (first, second) => {
      const glides = gliding(first, second, 1);
      const cuts = gliding(first, second, 0);
      const plan = (p: Project, t: number) => planFrame(p, SOURCES, at(t), FRAME);
      for (const t of [9.9, 11, 15, 19.9, 21.1]) expect(plan(glides, t)).toEqual(plan(cuts, t));
    }),
    { numRuns: 30 },
  );
});

test('an own shape goes over into another, and into one that is none', () => {
  const turned = PEBBLE.map(({ x, y }) => ({ x: 1 - x, y }));
  const inShape = (change: Partial<PresenterBox>): Layout => ({
    ...own,
    presenter: { ...(own.presenter as PresenterBox), ...change },
  });
  const maskAt = (first: Layout, second: Layout, t: number) => {
    const scene = sceneAt(gliding(first, second, 1), SOURCES, at(t));
    return presenterOf(scene, frontmost(scene, 'presenter')!)!.place.mask;
  };
  const [from, to] = [inShape({ shape: 'own' }), inShape({ shape: 'own', path: turned })];
  const [rests, half] = [maskAt(from, to, 9), maskAt(from, to, 10.5)];
  expect([rests?.shape, half?.shape]).toEqual(['path', 'path']);
  expect(half).not.toEqual(rests);
  expect(maskAt(from, own, 10.5)?.shape).toBe('path');
  expect(maskAt(from, own, 12)?.shape).toBe('rounded');
  // Nearly there, its corners lie along a circle.
  const mask = maskAt(from, inShape({ shape: 'circle' }), 10.999);
  if (mask?.shape !== 'path') throw new Error('It has another outline.');
  const [width, height] = ['x', 'y'].map((side) =>
    Math.max(...mask.points.map((p) => p[side as 'x'])),
  );
  for (const { x, y } of mask.points)
    expect(Math.hypot((2 * x) / width! - 1, (2 * y) / height! - 1)).toBeCloseTo(1, 1);
});

test('nothing jumps on the way, there or back', () => {
  fc.assert(
    fc.property(layouts, layouts, (first, second) => {
      const project = gliding(first, second, 1);
      for (const from of [9.99, 19.99]) {
        let last = places(project, at(from));
        for (let t = from; t < from + 1.1; t += 1 / 60) {
          const now = places(project, at(t));
          for (const name of ['screen', 'presenter'] as const) {
            const [a, b] = [last[name], now[name]];
            if (!a || !b) continue;
            for (const side of ['x', 'y', 'width', 'height'] as const)
              expect(Math.abs(a[side] - b[side])).toBeLessThan(80);
          }
          last = now;
        }
      }
    }),
    { numRuns: 30 },
  );
});

test('halfway, boxes are in the middle, the ring half as wide, the background between', () => {
  const scene = sceneAt(gliding(LAYOUTS.side, own, 2), SOURCES, at(11));
  const { screen, presenter, background } = scene.layout;
  expect(scene.gliding).toBe(true);
  expect(screen!.box.x).toBeCloseTo((0.02 + 0.3) / 2, 6);
  expect(screen!.box.height).toBeCloseTo((0.67 + 0.8) / 2, 6);
  expect(presenter).toMatchObject({ ring: { width: 4, color: '#c2412d' }, shape: 'rounded' });
  const canvas = plainGround(demoProject(counter()).canvas.background);
  const channel = (color: string, i: number) => parseInt(color.slice(1 + 2 * i, 3 + 2 * i), 16);
  for (const i of [0, 1, 2])
    expect(channel(plainGround(background!), i)).toBeCloseTo(
      (channel(canvas, i) + channel('#204060', i)) / 2,
      0,
    );
});

test('a presenter who comes grows from the middle of their box', () => {
  const project = gliding(LAYOUTS.screen, own, 1);
  const sizes = [10.2, 10.4, 10.6, 10.8, 11].map((t) => places(project, at(t)).presenter!);
  const widths = sizes.map(({ width }) => width);
  expect(widths).toEqual([...widths].sort((a, b) => a - b));
  expect(widths[0]).toBeLessThan(60);
  for (const { x, width, y, height } of sizes) {
    expect(Math.abs(x + width / 2 - (0.02 + 0.125) * 1920)).toBeLessThanOrEqual(2);
    expect(Math.abs(y + height / 2 - (0.5 + 0.225) * 1080)).toBeLessThanOrEqual(2);
  }
});

test('a glide is no longer than its layout, and gives way to the next', () => {
  const spans = [
    { id: 'a', start: 10, end: 110, layout: LAYOUTS.side, glide: 400 },
    { id: 'b', start: 140, end: 200, layout: own },
  ];
  expect(layoutMomentAt(spans, 60)).toMatchObject({ from: USUAL_LAYOUT, to: LAYOUTS.side, u: 0.5 });
  // Back to the usual one, in the thirty ticks until the next begins.
  expect(layoutMomentAt(spans, 125)).toMatchObject({
    from: LAYOUTS.side,
    to: USUAL_LAYOUT,
    u: 0.5,
  });
  expect(layoutMomentAt(spans, 140)).toMatchObject({ from: own, to: own, u: 1 });
  expect(layoutMomentAt([], 5).u).toBe(1);
  // Nothing comes before the first picture.
  expect(layoutMomentAt([{ ...spans[0]!, start: 0 }], 0)).toMatchObject({ to: LAYOUTS.side, u: 1 });
  expect(layoutMomentAt(spans, 900)).toMatchObject({ to: USUAL_LAYOUT, u: 1 });
});

test('on the way the presenter is drawn over the screen, whichever layout hides it', () => {
  const layers = planFrame(gliding(LAYOUTS.presenter, LAYOUTS.corner, 1), SOURCES, at(10.5), FRAME)
    .layers.filter((layer): layer is VideoLayer => layer.kind === 'video')
    .map(({ footageId }) => footageId);
  expect(layers).toEqual(['screen', 'camera']);
});

describe('with a dissolve', () => {
  const dissolving = (first: Layout, second: Layout): Project => {
    const project = gliding(first, second, 1);
    for (const span of project.layouts) span.dissolves = true;
    return project;
  };
  const plan = (p: Project, t: number) => planFrame(p, SOURCES, at(t), FRAME);

  test('both layouts are seen as they are at rest, one over the other', () => {
    fc.assert(
      fc.property(layouts, layouts, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (a, b, u) => {
        fc.pre(a !== USUAL_LAYOUT || b !== USUAL_LAYOUT);
        const project = dissolving(a, b);
        const cuts = gliding(a, b, 0);
        const time = 10 + u;
        const [mix, ...rest] = plan(project, time).layers;
        if (mix?.kind !== 'mix') throw new Error('There is no mix');
        expect(rest).toEqual([]);
        expect(mix.amount).toBeCloseTo(u, 6);
        // The first as it was before, with what its recordings show now.
        const before = structuredClone(cuts);
        before.layouts = before.layouts.slice(0, 1).map((span) => ({ ...span, end: at(20) }));
        // The usual layout has no stretch of its own.
        if (a === USUAL_LAYOUT) before.layouts = [];
        const layersOf = (p: Project) => plan(p, time).layers;
        expect(mix.from.slice(1)).toEqual(layersOf(before));
        expect(mix.to.slice(1)).toEqual(layersOf(cuts));
        const { background } = project.canvas;
        const fill = ({ layers: [first] }: { layers: typeof mix.from }) =>
          first?.kind === 'drawing' && first.mark.kind === 'outline' ? first.mark.fill : null;
        expect(fill({ layers: mix.from })).toBe(a.background ?? background);
        expect(fill({ layers: mix.to })).toBe(b.background ?? background);
      }),
      { numRuns: 40 },
    );
  });

  test('handles and readings have the layout that is seen more, and nothing moves', () => {
    const project = dissolving(LAYOUTS.side, LAYOUTS.corner);
    const [early, late] = [10.2, 10.8].map((t) => sceneAt(project, SOURCES, at(t)));
    expect(early).toMatchObject({ layout: LAYOUTS.side, gliding: false });
    expect(late).toMatchObject({ layout: LAYOUTS.corner, gliding: false });
    expect(sceneAt(project, SOURCES, at(12)).dissolve).toBeNull();
  });
});
