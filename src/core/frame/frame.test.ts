import { addSpan, setLayout } from '../edit/spans';
import { changeLook } from '../edit/settings';
import { placeFootage } from '../edit/place';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import type { Project } from '../project/model';
import type { Sources } from '../project/sources';
import { secondsToTicks } from '../time/ticks';
import { planFrame } from './plan-frame';
import type { Layer } from './plan';
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
const kinds = (project: Project, sources: Sources, time: number) => planFrame(project, sources, at(time), OUTPUT).layers.map((l) => l.kind);
const videos = (layers: readonly Layer[]) => layers.flatMap((l) => (l.kind === 'video' ? [l] : []));

test('side by side, screen and presenter share the picture without touching', () => {
  const project = both();
  setLayout(project, { start: 0, end: at(5) }, 'side', counter());
  const [screen, presenter] = videos(planFrame(project, SOURCES, at(1), OUTPUT).layers);
  expect(screen!.destination.x + screen!.destination.width).toBeLessThan(presenter!.destination.x);
  expect(presenter!.destination.x + presenter!.destination.width).toBeLessThanOrEqual(1920);
  expect(screen!.destination.height).toBe(presenter!.destination.height);
  // Nothing is squeezed.
  for (const { source, destination } of [screen!, presenter!])
    expect(source.width / source.height).toBeCloseTo(destination.width / destination.height, 1);
  expect(readScale(project, SOURCES, at(1))!.scale).toBeCloseTo(screen!.destination.width / 2560, 2);
});

test('side by side with nobody there, the screen has it all', () => {
  const project = both();
  project.lanes.find((l) => l.kind === 'presenter')!.clips = [];
  setLayout(project, { start: 0, end: at(5) }, 'side', counter());
  expect(videos(planFrame(project, SOURCES, at(1), OUTPUT).layers)[0]!.destination).toEqual({ x: 0, y: 0, ...OUTPUT });
});

test('an area counts as the whole of its recording, and nothing outside it is seen', () => {
  const project = both();
  changeLook(project, 'screen', { area: { x: 640, y: 360, width: 1280, height: 720 }, brightness: 0.1 });
  const [screen] = videos(planFrame(project, SOURCES, at(1), OUTPUT).layers);
  expect(screen!.source).toEqual({ x: 640, y: 360, width: 1280, height: 720 });
  expect(screen!.adjust).toEqual({ brightness: 0.1, contrast: 1 });
  expect(readScale(project, SOURCES, at(1))).toMatchObject({ magnification: 1, sharpness: 'soft' });
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
  const drawn = planFrame(project, { ...SOURCES, pointers: { screen: { ...track, inPicture: false } } }, at(1), OUTPUT).layers.find(
    (l) => l.kind === 'pointer',
  );
  expect(drawn).toMatchObject({ tip: { x: 480, y: 270 }, shape: 'text' });
});

test('a line appears as it was drawn, a marker pen is see-through, and an arrow has its tip where it points', () => {
  const project = both();
  const base = { start: at(1), end: at(5), footageId: 'screen', width: 8, color: '#c2412d' };
  addSpan(project, 'callouts', {
    ...base,
    id: 'a',
    kind: 'stroke',
    tool: 'marker',
    points: [
      [0, 256, 144],
      [500, 512, 144],
      [1000, 768, 144],
    ],
  });
  addSpan(project, 'callouts', { ...base, id: 'b', kind: 'shape', shape: 'arrow', from: { x: 0, y: 0 }, to: { x: 1280, y: 720 } });
  const strokes = (time: number) => planFrame(project, SOURCES, at(time), OUTPUT).layers.flatMap((l) => (l.kind === 'stroke' ? [l] : []));
  expect(strokes(1.6)[0]!.paths[0]).toHaveLength(2);
  expect(strokes(3)[0]).toMatchObject({ opacity: 0.4, width: 6 });
  expect(strokes(3)[0]!.paths[0]).toHaveLength(3);
  expect(strokes(3)[1]!.paths[0]![1]).toEqual({ x: 960, y: 540 });
  expect(strokes(0.5)).toEqual([]);
});
