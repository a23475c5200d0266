import { PLAIN_LINES } from '../callout/kinds/two-points';
import { UNPOSED } from '../callout/keyframes';
import { PLAIN_ARROW } from '../callout/kinds/arrow';
import { USUAL_MOTION } from '../callout/motion';
import { arrangementsFor } from '../layout/arrangements';
import { LAYOUTS } from '../layout/built-in';
import { addSpan, setLayout } from '../edit/spans';
import { changeLane, moveLane } from '../edit/lanes';
import { freezeOver, setSpeed } from '../edit/retime';
import { rippleDelete } from '../edit/ripple';
import { changeKey, changeLook } from '../edit/settings';
import { DEFAULT_TRANSITION, setTransition } from '../edit/transitions';
import { placeFootage } from '../edit/place';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import type { Project } from '../project/model';
import type { Sources } from '../project/sources';
import { secondsToTicks } from '../time/ticks';
import { planFrame } from './plan-frame';
import { UNADJUSTED, videoLayers, type Layer } from './plan';
import { readScale } from './reading';

const OUTPUT = { width: 1920, height: 1080 };
const at = secondsToTicks;

function both(): Project {
  const project = emptyProject();
  const newId = counter();
  placeFootage(project, SOURCES.footage.camera!, 0, newId);
  placeFootage(project, SOURCES.footage.screen!, 0, newId);
  return project;
}
const kinds = (project: Project, sources: Sources, time: number) =>
  planFrame(project, sources, at(time), OUTPUT).layers.map((l) =>
    l.kind === 'drawing' ? l.mark.kind : l.kind,
  );
const videos = (layers: readonly Layer[]) => layers.flatMap((l) => (l.kind === 'video' ? [l] : []));

test('side by side, screen and presenter share the picture without touching', () => {
  const project = both();
  setLayout(project, { start: 0, end: at(5) }, LAYOUTS.side, counter());
  const [screen, presenter] = videos(planFrame(project, SOURCES, at(1), OUTPUT).layers);
  expect(screen!.destination.x + screen!.destination.width).toBeLessThan(presenter!.destination.x);
  expect(presenter!.destination.x + presenter!.destination.width).toBeLessThanOrEqual(1920);
  expect(screen!.destination.height).toBe(presenter!.destination.height);
  // Nothing is squeezed.
  for (const { source, destination } of [screen!, presenter!])
    expect(source.width / source.height).toBeCloseTo(destination.width / destination.height, 1);
  expect(readScale(project, SOURCES, at(1))!.scale).toBeCloseTo(
    screen!.destination.width / 2560,
    2,
  );
});

test('a screen that has not the whole picture can have round corners and an edge', () => {
  const project = both();
  const ring = { width: 6, color: '#c2412d' };
  const screen = { ...LAYOUTS.side.screen!, rounding: 0.1, ring };
  const framed = { ...LAYOUTS.side, screen };
  setLayout(project, { start: 0, end: at(5) }, framed, counter());
  const plan = (output = OUTPUT) => planFrame(project, SOURCES, at(1), output);
  const [video] = videos(plan().layers);
  const { width, height } = video!.destination;
  expect(video!.mask).toMatchObject({ shape: 'rounded', radius: 0.1 * Math.min(width, height) });
  const edges = (output = OUTPUT) =>
    plan(output).layers.flatMap((l) =>
      l.kind === 'drawing' && l.mark.kind === 'outline' ? [l.mark] : [],
    );
  expect(edges()[0]).toMatchObject({ shape: 'rounded', stroke: ring, box: video!.destination });
  // At half the size, half as wide.
  expect(edges({ width: 960, height: 540 })[0]!.stroke!.width).toBe(3);
  // Alone it has the whole picture, which has neither.
  project.lanes.find((l) => l.kind === 'presenter')!.clips = [];
  expect(videos(plan().layers)[0]!.mask).toBeNull();
  expect(edges()).toEqual([]);
});

test('nothing is behind a keyed presenter where the layout says so, else what the project has', () => {
  const project = both();
  changeKey(project, 'camera', { on: true });
  const large = arrangementsFor(OUTPUT).find(({ name }) => /in front/.test(name))!;
  const backdrop = () =>
    videos(planFrame(project, SOURCES, at(1), OUTPUT).layers).find(
      ({ footageId }) => footageId === 'camera',
    )!.backdrop;
  expect(backdrop()).toBe(project.presenter.backdrop);
  setLayout(project, { start: 0, end: at(5) }, large, counter());
  expect(backdrop()).toBeNull();
});

test('side by side with nobody there, the screen has it all', () => {
  const project = both();
  project.lanes.find((l) => l.kind === 'presenter')!.clips = [];
  setLayout(project, { start: 0, end: at(5) }, LAYOUTS.side, counter());
  expect(videos(planFrame(project, SOURCES, at(1), OUTPUT).layers)[0]!.destination).toEqual({
    x: 0,
    y: 0,
    ...OUTPUT,
  });
});

test('an area counts as the whole of its recording, and nothing outside it is seen', () => {
  const project = both();
  changeLook(project, 'screen', {
    area: { x: 640, y: 360, width: 1280, height: 720 },
    brightness: 0.1,
  });
  const [screen] = videos(planFrame(project, SOURCES, at(1), OUTPUT).layers);
  expect(screen!.source).toEqual({ x: 640, y: 360, width: 1280, height: 720 });
  expect(screen!.adjust).toEqual({ ...UNADJUSTED, brightness: 0.1 });
  expect(readScale(project, SOURCES, at(1))).toMatchObject({
    magnification: 1,
    sharpness: 'crisp',
  });
  expect(screen!.crisp).toBe(true);
  const plain = { ...project, canvas: { ...project.canvas, crisp: false } };
  expect(readScale(plain, SOURCES, at(1))).toMatchObject({ sharpness: 'soft' });
});

test('a pointer that the recording does not show is drawn where it was; one that it shows is not', () => {
  const track = {
    format: 'vistum-pointer' as const,
    version: 1 as const,
    width: 2560,
    height: 1440,
    samples: [
      [0, 0, 0],
      [2000, 1280, 720],
    ] as const,
    events: [{ t: 500, type: 'shape' as const, shape: 'text' }],
  };
  const project = both();
  expect(kinds(project, { ...SOURCES, pointers: { screen: track } }, 1)).not.toContain('pointer');
  const drawn = planFrame(
    project,
    { ...SOURCES, pointers: { screen: { ...track, inPicture: false } } },
    at(1),
    OUTPUT,
  ).layers.find((l) => l.kind === 'drawing' && l.mark.kind === 'pointer');
  expect(drawn).toMatchObject({ mark: { tip: { x: 480, y: 270 }, shape: 'text' } });
});

test('a line appears as it was drawn, a marker pen is see-through, and an arrow has its tip where it points', () => {
  const project = both();
  const anchor = { to: 'footage', footageId: 'screen' } as const;
  const base = { start: at(1), end: at(5), anchor, width: 8, color: '#c2412d', ...UNPOSED };
  addSpan(project, 'callouts', {
    ...{ ...base, ...USUAL_MOTION },
    id: 'a',
    kind: 'stroke',
    tool: 'marker',
    points: [
      [0, 256, 144],
      [500, 512, 144],
      [1000, 768, 144],
    ],
  });
  addSpan(project, 'callouts', {
    ...base,
    id: 'b',
    kind: 'arrow',
    ...{ ...PLAIN_ARROW, ...PLAIN_LINES },
    from: { x: 0, y: 0 },
    to: { x: 1280, y: 720 },
  });
  const strokes = (time: number) =>
    planFrame(project, SOURCES, at(time), OUTPUT).layers.flatMap((l) =>
      l.kind === 'drawing' && l.mark.kind === 'lines' ? [{ ...l.mark, opacity: l.opacity }] : [],
    );
  expect(strokes(1.6)[0]!.paths[0]).toHaveLength(2);
  expect(strokes(3)[0]).toMatchObject({ opacity: 0.4, width: 6 });
  expect(strokes(3)[0]!.paths[0]).toHaveLength(3);
  expect(strokes(3)[1]!.paths[0]![1]).toEqual({ x: 960, y: 540 });
  expect(strokes(0.5)).toEqual([]);
});

describe('lanes and transitions', () => {
  const clipsOf = (layers: readonly Layer[]) => videoLayers(layers).map((l) => l.clipId);

  test('what is higher on the timeline is in front, and what it hides is not drawn', () => {
    const project = both();
    const [presenter, screen] = [project.lanes[0]!.clips[0]!.id, project.lanes[1]!.clips[0]!.id];
    expect(clipsOf(planFrame(project, SOURCES, at(1), OUTPUT).layers)).toEqual([screen, presenter]);
    moveLane(project, 'screen', -1);
    expect(clipsOf(planFrame(project, SOURCES, at(1), OUTPUT).layers)).toEqual([screen]);
    // A screen in front of a presenter who has the whole picture covers it; one behind is not seen.
    setLayout(project, { start: 0, end: at(5) }, LAYOUTS.presenter, counter());
    expect(clipsOf(planFrame(project, SOURCES, at(1), OUTPUT).layers)).toEqual([screen]);
    moveLane(project, 'screen', 1);
    expect(clipsOf(planFrame(project, SOURCES, at(1), OUTPUT).layers)).toEqual([presenter]);
    // Solo leaves only its own lane.
    setLayout(project, { start: 0, end: at(5) }, LAYOUTS.corner, counter());
    changeLane(project, 'screen', { solo: true });
    expect(clipsOf(planFrame(project, SOURCES, at(1), OUTPUT).layers)).toEqual([screen]);
  });

  const cut = (kind: 'dissolve' | 'fade' | 'slide' | 'push') => {
    const project = both();
    project.lanes[0]!.clips = [];
    const newId = counter();
    rippleDelete(project, { start: at(10), end: at(20) }, newId);
    const clip = project.lanes[1]!.clips[1]!;
    setTransition(
      project,
      SOURCES,
      clip.id,
      'start',
      { kind, duration: at(1), color: '#102030', from: 'left' },
      at(1 / 30),
    );
    return project;
  };
  const mixAt = (project: Project, time: number) => {
    const [mix, ...rest] = planFrame(project, SOURCES, at(time), OUTPUT).layers;
    expect(rest).toEqual([]);
    return mix as Layer & { kind: 'mix' };
  };

  test('a dissolve shows footage of both clips beyond the cut', () => {
    const project = cut('dissolve');
    const mix = mixAt(project, 10.25);
    expect(mix.amount).toBeCloseTo(0.75);
    expect(videos(mix.from)[0]!.time).toBe(at(10.25));
    expect(videos(mix.to)[0]!.time).toBe(at(20.25));
    expect(planFrame(project, SOURCES, at(10.6), OUTPUT).layers.map((l) => l.kind)).toEqual([
      'video',
    ]);
  });

  test('a fade goes through its colour, a slide and a push come from their side', () => {
    expect(mixAt(cut('fade'), 9.75)).toMatchObject({
      amount: 0.5,
      to: [{ kind: 'drawing', mark: { kind: 'outline', fill: '#102030' } }],
      motion: null,
    });
    expect(mixAt(cut('fade'), 10.25)).toMatchObject({
      amount: 0.5,
      from: [{ kind: 'drawing', mark: { kind: 'outline', fill: '#102030' } }],
    });
    expect(mixAt(cut('slide'), 10)).toMatchObject({
      amount: 0.5,
      motion: { kind: 'slide', from: 'left' },
    });
    expect(mixAt(cut('push'), 10).motion).toEqual({ kind: 'push', from: 'left' });
  });

  test('an inset dissolves where the whole picture would move', () => {
    const project = both();
    const newId = counter();
    rippleDelete(project, { start: at(10), end: at(20) }, newId);
    setTransition(
      project,
      SOURCES,
      project.lanes[0]!.clips[1]!.id,
      'start',
      { ...DEFAULT_TRANSITION, kind: 'push' },
      1,
    );
    const mix = planFrame(project, SOURCES, at(10), OUTPUT).layers.find((l) => l.kind === 'mix');
    expect(mix).toMatchObject({ motion: null });
  });

  test('a frozen clip shows one time, a quick one runs through its footage', () => {
    const project = both();
    const newId = counter();
    const screen = project.lanes[1]!.clips[0]!;
    setSpeed(project, screen.id, 2, 'stay', at(1 / 30), newId);
    expect(videos(planFrame(project, SOURCES, at(3), OUTPUT).layers)[0]).toMatchObject({
      time: at(6),
      speed: 2,
    });
    freezeOver(project, SOURCES, screen.id, at(3), at(2), at(1 / 30), newId);
    for (const time of [3, 4, 4.9])
      expect(videos(planFrame(project, SOURCES, at(time), OUTPUT).layers)[0]).toMatchObject({
        time: at(6),
        speed: 0,
      });
  });

  test('a recording of another shape is fitted, fitted over itself blurred, or fills the picture', () => {
    const wide: Sources = {
      ...SOURCES,
      footage: {
        ...SOURCES.footage,
        screen: { ...SOURCES.footage.screen!, width: 1440, height: 1080 },
      },
    };
    const project = both();
    project.lanes[0]!.clips = [];
    const layers = () => planFrame(project, wide, at(1), OUTPUT).layers;
    expect(videos(layers()).map((l) => l.destination.width)).toEqual([1440]);
    changeLook(project, 'screen', { bars: 'blur' });
    expect(layers().map((l) => l.kind)).toEqual(['video', 'region', 'video']);
    expect(videos(layers())[0]!.destination).toEqual({ x: 0, y: 0, ...OUTPUT });
    expect(videos(layers())[0]!.source.width / videos(layers())[0]!.source.height).toBeCloseTo(
      16 / 9,
      5,
    );
    changeLook(project, 'screen', { fit: 'fill' });
    expect(videos(layers())).toMatchObject([
      {
        destination: { x: 0, y: 0, ...OUTPUT },
        source: { x: 0, y: 135, width: 1440, height: 810 },
      },
    ]);
  });
});
