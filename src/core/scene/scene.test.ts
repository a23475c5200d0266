import fc from 'fast-check';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { addSpan, setLayout } from '../edit/spans';
import { planFrame } from '../frame/plan-frame';
import { readScale } from '../frame/reading';
import { builtInOf, LAYOUT_KINDS, LAYOUTS } from '../layout/built-in';
import type { Layout } from '../layout/model';
import { planProject } from '../framing/plan';
import { USUAL_TASTE } from '../framing/taste';
import type { Project } from '../project/model';
import { wholeView } from '../scale/sharpness';
import { secondsToTicks } from '../time/ticks';
import { framingLimits, limitsAlong } from './limits';
import { frontmost, presenterOf, sceneAt, screenIn, screenOf } from './scene';

const at = secondsToTicks;
const FRAME = { width: 1920, height: 1080 };

function both(layout: Layout, magnification?: number): Project {
  const project = emptyProject();
  const newId = counter();
  placeFootage(project, SOURCES.footage.camera!, 0, newId);
  placeFootage(project, SOURCES.footage.screen!, 0, newId);
  setLayout(project, { start: 0, end: at(30) }, layout, newId);
  if (magnification)
    addSpan(project, 'framings', {
      id: 'f',
      start: at(2),
      end: at(12),
      rampIn: at(1),
      rampOut: at(1),
      footageId: 'screen',
      rect: { x: 100, y: 50, width: 2560 / magnification, height: 1440 / magnification },
      endRect: null,
      pinned: true,
      reason: '',
    });
  return project;
}

const share = fc.double({ min: 0.25, max: 1, noNaN: true });
/** Any box for the screen, of any shape. */
const anyLayout = fc
  .tuple(share, share, fc.constantFrom('stay' as const, 'whole' as const))
  .map(([width, height, alone]): Layout => ({
    ...LAYOUTS.side,
    name: 'Own',
    screen: { box: { x: 0, y: 0, width, height } },
    alone,
  }));

test('the limit is where one footage pixel is one of the frame, in whatever layout it is seen', () => {
  fc.assert(
    fc.property(anyLayout, fc.double({ min: 1, max: 6, noNaN: true }), (layout, zoom) => {
      const project = both(layout, zoom);
      for (const time of [1, 6, 35].map(at)) {
        const screen = screenIn(sceneAt(project, SOURCES, time))!;
        expect(screen.frameScale).toBeCloseTo(screen.magnification / screen.limit, 9);
        const reading = readScale(project, SOURCES, time)!;
        expect(reading.scale).toBe(screen.frameScale);
        if (Math.abs(screen.magnification / screen.limit - 1) > 0.02)
          expect(['crisp', 'soft'].includes(reading.sharpness)).toBe(
            screen.magnification > screen.limit,
          );
        const along = limitsAlong(project, SOURCES).find((l) => l.start <= time && time < l.end)!;
        expect(along.limit).toBe(screen.limit);
        if (Math.abs(screen.magnification / along.crisp - 1) > 0.02)
          expect(reading.sharpness === 'soft').toBe(screen.magnification > along.crisp);
      }
    }),
  );
});

test('side by side the screen may go closer, and graph, reading and planner say so alike', () => {
  const project = both(LAYOUTS.side, 1.6);
  const corner = both(LAYOUTS.corner, 1.6);
  expect(readScale(corner, SOURCES, at(6))!.sharpness).toBe('crisp');
  const plain = { ...corner, canvas: { ...corner.canvas, crisp: false } };
  expect(readScale(plain, SOURCES, at(6))!.sharpness).toBe('soft');
  expect(limitsAlong(plain, SOURCES).every((l) => l.crisp === l.limit)).toBe(true);
  expect(readScale(project, SOURCES, at(6))!.sharpness).toBe('sharp');
  const limits = limitsAlong(project, SOURCES);
  expect(limits).toHaveLength(2);
  expect(limits[0]!.limit / limits[1]!.limit).toBeCloseTo(1 / 0.67, 2);
  expect(framingLimits(project.framings[0]!, limits)!.limit).toBe(limits[0]!.limit);
  // Where it is seen in both, the closer of the two limits counts.
  project.framings[0]!.end = at(35);
  expect(framingLimits(project.framings[0]!, limits)!.limit).toBe(limits[1]!.limit);
  expect(framingLimits({ ...project.framings[0]!, footageId: 'gone' }, limits)).toBeNull();

  const press = [5000, 6000, 7000].flatMap((t) => [
    { t, type: 'down' as const, button: 0 },
    { t: t + 90, type: 'up' as const, button: 0 },
  ]);
  const track = {
    format: 'vistum-pointer' as const,
    version: 1 as const,
    width: 2560,
    height: 1440,
    samples: Array.from({ length: 90 }, (_, i) => [i * 100, 400, 300] as const),
    events: press,
  };
  const sources = { ...SOURCES, pointers: { screen: track } };
  const lively = { ...USUAL_TASTE, lively: 1 };
  const closest = (p: Project) =>
    Math.max(
      ...planProject({ ...p, framings: [] }, sources, counter(), { taste: lively }).framings.map(
        ({ rect }) => 2560 / rect.width,
      ),
    );
  expect(closest(corner)).toBeCloseTo(2560 / 1920, 2);
  expect(closest(project)).toBeCloseTo(2560 / 1920 / 0.67, 2);
});

test('a screen that is glided away from is seen until it is reached, and no longer', () => {
  const span = { id: 'l', start: at(2), end: at(5), layout: LAYOUTS.presenter, glide: at(0.6) };
  const project = { ...both(LAYOUTS.corner), layouts: [span] };
  const limits = limitsAlong(project, SOURCES);
  const seen = (seconds: number) =>
    limits.some((l) => l.start <= at(seconds) && at(seconds) < l.end);
  expect([1.9, 2.5, 2.7, 4.9, 5.1].map(seen)).toEqual([true, true, false, false, true]);
});

test('points of the recording and of the picture are told from each other both ways', () => {
  fc.assert(
    fc.property(anyLayout, fc.integer({ min: 0, max: 20 }), (layout, seconds) => {
      const screen = screenIn(
        sceneAt(both(layout, 2), SOURCES, at(seconds), { width: 1280, height: 720 }),
      )!;
      const spot = { x: 321, y: 654 };
      const back = screen.toFootage(screen.toOutput(spot));
      expect(back.x).toBeCloseTo(spot.x, 6);
      expect(back.y).toBeCloseTo(spot.y, 6);
      const { source, destination } = screen.placement!;
      const corner = screen.toOutput({ x: source.x, y: source.y });
      // At the recording's own edge the destination is brought to whole even pixels.
      expect(Math.abs(corner.x - destination.x)).toBeLessThan(2);
      expect(Math.abs(corner.y - destination.y)).toBeLessThan(2);
    }),
  );
});

test('a box of another shape shows all of the framing and more around it, nothing is squeezed', () => {
  const tall: Layout = { ...LAYOUTS.side, screen: { box: { x: 0, y: 0, width: 0.3, height: 1 } } };
  const project = both(tall, 2);
  const screen = screenIn(sceneAt(project, SOURCES, at(6)))!;
  const { rect } = project.framings[0]!;
  expect(screen.view.width).toBeCloseTo(rect.width, 6);
  expect(screen.view.height).toBeGreaterThan(rect.height);
  const { x, width, height } = wholeView(rect, screen.stage);
  // Higher than the recording: as much beyond it above as below.
  expect(screen.view).toEqual({ x, width, height, y: (1440 - height) / 2 });
  const { source, destination } = screen.placement!;
  expect(source.width / source.height).toBeCloseTo(destination.width / destination.height, 2);
});

test('the background of a layout takes the place of the project’s', () => {
  const project = both({ ...LAYOUTS.side, background: '#102030' });
  expect(planFrame(project, SOURCES, at(1), FRAME).background).toBe('#102030');
  expect(planFrame(project, SOURCES, at(31), FRAME).background).toBe(project.canvas.background);
});

test('a layout whose picture is not there lies on what the project has, gliding or not', () => {
  const gone = both({ ...LAYOUTS.side, background: { footageId: 'of another project' } });
  const { background } = gone.canvas;
  for (const way of [{}, { glide: at(2) }, { glide: at(2), dissolves: true }]) {
    Object.assign(gone.layouts[0]!, way);
    const plain = structuredClone(gone);
    plain.layouts[0]!.layout.background = null;
    for (const time of [at(1), at(29), at(31)]) {
      expect(sceneAt(gone, SOURCES, time).ground.under).toEqual(background);
      expect(planFrame(gone, SOURCES, time, FRAME)).toEqual(planFrame(plain, SOURCES, time, FRAME));
    }
  }
});

test('a presenter’s box has its own outline, edge and middle', () => {
  const own: Layout = {
    ...LAYOUTS.side,
    presenter: {
      box: { x: 0.7, y: 0.1, width: 0.25, height: 0.5 },
      shape: 'circle',
      feather: 0.1,
      center: { x: 0, y: 0.5 },
      ring: { width: 6, color: '#112233' },
    },
  };
  const scene = sceneAt(both(own), SOURCES, at(1));
  const { place } = presenterOf(scene, frontmost(scene, 'presenter')!)!;
  expect(place.destination).toEqual({ x: 1344, y: 108, width: 480, height: 540 });
  expect(place.mask).toEqual({ shape: 'ellipse', feather: 54 });
  expect(place.ring).toEqual({ width: 6, color: '#112233' });
  expect(place.source).toMatchObject({ x: 0, y: 0, height: 720 });
});

test('alone in a layout for two, each has the whole picture or stays, as the layout says', () => {
  for (const alone of ['whole', 'stay'] as const) {
    const screen = both({ ...LAYOUTS.side, alone });
    screen.lanes.find((l) => l.kind === 'presenter')!.clips = [];
    const scene = sceneAt(screen, SOURCES, at(1));
    const { stage } = screenOf(scene, frontmost(scene, 'screen')!);
    expect(stage.width === 1920).toBe(alone === 'whole');
    const presenter = both({ ...LAYOUTS.side, alone });
    presenter.lanes.find((l) => l.kind === 'screen')!.clips = [];
    const at1 = sceneAt(presenter, SOURCES, at(1));
    const { place } = presenterOf(at1, frontmost(at1, 'presenter')!)!;
    expect(place.destination.width === 1920).toBe(alone === 'whole');
  }
});

test('built-in layouts are known whatever they are called; a changed one is a project’s own', () => {
  for (const kind of LAYOUT_KINDS) {
    expect(builtInOf({ ...structuredClone(LAYOUTS[kind]), name: 'Mine' })).toBe(kind);
    expect(builtInOf({ ...LAYOUTS[kind], background: '#000000' })).toBeNull();
  }
});
