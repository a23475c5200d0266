import fc from 'fast-check';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { setLayout } from '../edit/spans';
import { planFrame } from '../frame/plan-frame';
import type { DrawingLayer, Layer, VideoLayer } from '../frame/plan';
import { parseColor } from '../key/color';
import type { Project } from '../project/model';
import { shownFootage } from '../project/query';
import { secondsToTicks } from '../time/ticks';
import { LAYOUTS } from './built-in';
import { groundBetween, plainGround, type Ground } from './ground';

const OUTPUT = { width: 960, height: 540 };
const STILL = { footageId: 'still' };
const color = fc
  .integer({ min: 0, max: 0xffffff })
  .map((n) => `#${n.toString(16).padStart(6, '0')}`);
const colors: fc.Arbitrary<Ground> = fc.oneof(color, fc.record({ from: color, to: color }));

/** Screen and camera for half a minute, on a ground. */
function onGround(background: Ground): Project {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.camera!, 0, counter());
  placeFootage(project, SOURCES.footage.screen!, 0, counter());
  project.canvas.background = background;
  return project;
}

const plan = (project: Project, seconds: number) =>
  planFrame(project, SOURCES, secondsToTicks(seconds), OUTPUT);

/** What of a plan is drawn before the first recording. */
const behind = (layers: readonly Layer[]): Layer[] =>
  layers.slice(
    0,
    layers.findIndex((l) => l.kind === 'video' && l.footageId !== STILL.footageId),
  );

test('colours go over into each other: they begin as one and end as the other', () => {
  fc.assert(
    fc.property(colors, colors, (a, b) => {
      const ends = (ground: Ground | null) => {
        if (typeof ground === 'string') return [ground, ground];
        return ground && 'from' in ground ? [ground.from, ground.to] : [];
      };
      expect(ends(groundBetween(a, b, 0))).toEqual(ends(a));
      expect(ends(groundBetween(a, b, 1))).toEqual(ends(b));
      const [[from], [to]] = [ends(a), ends(b)];
      const middle = parseColor(plainGround(groundBetween(a, b, 0.5)!));
      for (const i of [0, 1, 2] as const)
        expect(
          Math.abs(middle[i] - (parseColor(from!)[i] + parseColor(to!)[i]) / 2),
        ).toBeLessThanOrEqual(0.5);
    }),
  );
});

test('between a picture and anything else there is nothing', () => {
  expect(groundBetween(STILL, '#ffffff', 0.5)).toBeNull();
  expect(groundBetween({ from: '#000000', to: '#ffffff' }, STILL, 0.5)).toBeNull();
});

test('bars show the ground: one colour, two, or a picture that fills the frame', () => {
  const bars = (ground: Ground) => {
    const project = onGround(ground);
    setLayout(project, { start: 0, end: secondsToTicks(30) }, LAYOUTS.side, counter());
    return project;
  };
  expect(plan(bars('#204060'), 1)).toMatchObject({ background: '#204060' });
  expect(behind(plan(bars('#204060'), 1).layers)).toEqual([]);
  const [two] = behind(plan(bars({ from: '#204060', to: '#e0f0ff' }), 1).layers);
  expect((two as DrawingLayer).mark).toMatchObject({ fill: '#204060', fillTo: '#e0f0ff' });
  const [still] = behind(plan(bars(STILL), 1).layers) as VideoLayer[];
  expect(still).toMatchObject({ speed: 0, destination: { x: 0, y: 0, ...OUTPUT } });
  // Nothing of it is squeezed.
  expect(still!.source.width / still!.source.height).toBeCloseTo(16 / 9, 5);
  // One that is gone leaves a picture all the same.
  expect(plan(bars({ footageId: 'gone' }), 1)).toMatchObject({ background: '#000000' });
  expect(behind(plan(bars({ footageId: 'gone' }), 1).layers)).toEqual([]);
});

test('a ground that is wholly hidden is not drawn', () => {
  expect(behind(plan(onGround(STILL), 1).layers)).toEqual([]);
});

test('in a glide a picture comes over the colour before it, and a dissolve has each in its half', () => {
  const project = onGround('#204060');
  const range = { start: secondsToTicks(10), end: secondsToTicks(20) };
  setLayout(project, { start: 0, end: range.start }, LAYOUTS.side, counter());
  setLayout(project, range, { ...LAYOUTS.side, background: STILL }, counter());
  const span = project.layouts[1]!;
  span.glide = secondsToTicks(2);
  const coming = [10.5, 11, 11.5].map((t) => behind(plan(project, t).layers)[0] as VideoLayer);
  expect(coming.map((layer) => layer.opacity)).toEqual([
    ...[expect.any(Number), expect.closeTo(0.5, 6), expect.any(Number)],
  ]);
  expect(coming[0]!.opacity).toBeLessThan(coming[1]!.opacity);
  expect(coming[2]!.opacity).toBeGreaterThan(coming[1]!.opacity);
  expect((behind(plan(project, 15).layers)[0] as VideoLayer).opacity).toBe(1);
  span.dissolves = true;
  const [mix] = plan(project, 11).layers;
  if (mix?.kind !== 'mix') throw new Error('There is no mix');
  expect(behind(mix.from)).toHaveLength(1);
  expect(behind(mix.to).at(-1)).toMatchObject({ footageId: 'still' });
});

test('a picture behind all counts as used', () => {
  const project = onGround('#204060');
  expect(shownFootage(project).has('still')).toBe(false);
  setLayout(
    project,
    { start: 0, end: secondsToTicks(5) },
    { ...LAYOUTS.side, background: STILL },
    counter(),
  );
  expect(shownFootage(project).has('still')).toBe(true);
  expect(shownFootage(onGround(STILL)).has('still')).toBe(true);
});
