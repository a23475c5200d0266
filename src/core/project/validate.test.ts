import { LAYOUT_KINDS, LAYOUTS } from '../layout/built-in';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import type { Project } from './model';
import { validateChanged, validateProject } from './validate';

const STEP = { title: '', narration: '', action: '', notes: '' };
const sound = () => {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.screen!, 0, counter());
  return project;
};
const faultsOf = (value: unknown) => {
  const checked = validateProject(value, SOURCES);
  return 'faults' in checked ? checked.faults.map((f) => f.path) : [];
};

test('a project that the program made is sound', () => {
  expect(faultsOf(sound())).toEqual([]);
});

test('a document of the first version is brought up to date', () => {
  const { target: _t, script: _s, markers: _m, looks: _l, ...rest } = sound();
  const old = {
    ...rest,
    version: 1,
    steps: [{ id: 'a', start: 0, title: 'Open', narration: '', action: '' }],
  };
  const checked = validateProject(old, SOURCES);
  expect(checked).toMatchObject({
    project: {
      version: 10,
      target: { id: 'web' },
      steps: [{ id: 'a', notes: '' }],
      markers: [],
      looks: [],
    },
  });
});

test('keys, looks, covers and halos of the version before keep what they do', () => {
  const span = { id: 'p', start: 0, end: 10 };
  const halo = { size: 100, color: '#ffcc00', softness: 0.5, opacity: 0.5 };
  const { presenter, ...rest } = structuredClone(emptyProject()) as unknown as Record<
    string,
    unknown
  > & {
    presenter: Record<string, unknown>;
  };
  delete presenter.feather;
  const old = {
    ...rest,
    presenter,
    version: 3,
    keys: [{ footageId: 'camera', on: true, color: '#2f9a4b', tolerance: 20, softness: 10 }],
    looks: [
      { footageId: 'screen', area: null, brightness: 0.1, contrast: 1, fit: 'fit', bars: 'plain' },
    ],
    pointer: [{ ...span, halo }],
    callouts: [
      {
        ...span,
        id: 'c',
        footageId: 'screen',
        kind: 'cover',
        rect: { x: 0, y: 0, width: 50, height: 50 },
        strength: 16,
      },
    ],
  };
  expect(validateProject(old, SOURCES)).toMatchObject({
    project: {
      version: 10,
      keys: [{ tolerance: 20, softness: 10, choke: 0, feather: 0, garbage: null, wall: null }],
      looks: [{ brightness: 0.1, opacity: 1, blend: 'normal', tilt: 0, crisp: true }],
      pointer: [{ looks: [{ kind: 'halo', ...halo }] }],
      callouts: [{ way: 'blur', strength: 16, anchor: { to: 'footage', footageId: 'screen' } }],
      presenter: { feather: 0 },
    },
  });
});

test.each(LAYOUT_KINDS)('the layout "%s" of version 4 becomes the built-in one as data', (kind) => {
  const span = { id: 'l', start: 0, end: 9 };
  const old = { ...sound(), version: 4, layouts: [{ ...span, kind }] };
  expect(validateProject(old, SOURCES)).toMatchObject({
    project: { version: 10, layouts: [{ ...span, layout: LAYOUTS[kind] }] },
  });
});

test('callouts and looks of version 4 keep what they show', () => {
  const times = { start: 0, end: 9, footageId: 'screen' };
  const line = { from: { x: 1, y: 2 }, to: { x: 3, y: 4 }, width: 8, color: '#c2412d' };
  const words = { offset: { dx: 5, dy: 6 }, size: 40, fill: '#111111', ink: '#ffffff' };
  const halo = { size: 130, color: '#f2b134', softness: 0.6, opacity: 0.6 };
  const dim = { size: 420, softness: 0.5, dark: 0.4, drained: 0.3 };
  const old = {
    ...sound(),
    version: 4,
    callouts: [
      { ...times, id: 'a', kind: 'shape', shape: 'arrow', ...line },
      { ...times, id: 'b', kind: 'shape', shape: 'box', ...line },
      { ...times, id: 'c', kind: 'shape', shape: 'ellipse', ...line },
      {
        ...times,
        id: 'd',
        kind: 'text',
        text: 'Ash',
        anchor: { x: 7, y: 8 },
        arrow: true,
        ...words,
      },
      {
        ...times,
        id: 'e',
        kind: 'stroke',
        tool: 'pen',
        points: [[0, 1, 2]],
        width: 3,
        color: '#000000',
      },
    ],
    pointer: [
      { id: 'p', start: 0, end: 9, halo, dim },
      { id: 'q', start: 9, end: 12, halo, dim: null },
    ],
  };
  const anchor = { to: 'footage', footageId: 'screen' };
  expect(validateProject(old, SOURCES)).toMatchObject({
    project: {
      callouts: [
        { id: 'a', kind: 'arrow', anchor, ...line },
        { id: 'b', kind: 'box', anchor, ...line },
        { id: 'c', kind: 'ellipse', anchor, ...line },
        { id: 'd', kind: 'text', anchor, tip: { x: 7, y: 8 }, ...words },
        { id: 'e', kind: 'stroke', anchor, points: [[0, 1, 2]] },
      ],
      pointer: [
        {
          looks: [
            { kind: 'dim', ...dim },
            { kind: 'halo', ...halo },
          ],
        },
        { looks: [{ kind: 'halo', ...halo }] },
      ],
    },
  });
});

test('callouts of version 7 come and go as they did', () => {
  const times = { start: 0, end: 9, anchor: { to: 'frame' } };
  const points = { from: { x: 0, y: 0 }, to: { x: 9, y: 9 }, width: 3, color: '#000000' };
  const rect = { x: 0, y: 0, width: 9, height: 9 };
  const old = {
    ...sound(),
    version: 7,
    callouts: [
      { ...times, id: 'a', kind: 'arrow', ...points },
      { ...times, id: 'b', kind: 'line', ...points },
      { ...times, id: 'c', kind: 'highlight', rect, color: '#f2c230', strength: 0.5 },
      { ...times, id: 'd', kind: 'cover', rect, way: 'blur', strength: 9, color: '#000000' },
    ],
  };
  const checked = validateProject(old, SOURCES);
  expect(checked).toMatchObject({
    project: {
      callouts: [
        { entrance: 'draw', exit: 'fade', pace: 0.25, course: 'straight', heads: 'end' },
        { entrance: 'fade', exit: 'fade', pace: 0.2 },
        { entrance: 'draw', exit: 'fade', pace: 0.4 },
        { kind: 'cover' },
      ],
    },
  });
  // A cover is there from its first picture to its last, whatever anybody would set.
  const covers = (checked as { project: Project }).project.callouts.slice(3);
  expect(covers[0]).not.toHaveProperty('entrance');
});

test('a callout or a look of version 4 that makes no sense is refused, whatever it is', () => {
  const span = { id: 'c', start: 0, end: 9 };
  for (const callout of [{ ...span, kind: 'shape' }, { ...span, kind: 'star' }, 7, null, []])
    expect(
      validateProject({ ...sound(), version: 4, callouts: [callout] }, SOURCES),
    ).toHaveProperty('faults');
  for (const look of [undefined, null, 'bright', { size: 1 }])
    expect(
      validateProject(
        { ...sound(), version: 4, pointer: [{ ...span, halo: look, dim: null }] },
        SOURCES,
      ),
    ).toHaveProperty('faults');
});

test('a layout of version 4 that is none is refused with its place', () => {
  for (const kind of ['diagonal', 7, null, { box: 1 }])
    expect(
      faultsOf({ ...sound(), version: 4, layouts: [{ id: 'l', start: 0, end: 9, kind }] }),
    ).toEqual(expect.arrayContaining([expect.stringMatching('^/layouts/0/layout')]));
});

test('planned steps have no time; two that have one never share it', () => {
  const project = sound();
  project.steps.push(
    { ...STEP, id: 'a', start: null },
    { ...STEP, id: 'b', start: null },
    { ...STEP, id: 'c', start: 9 },
  );
  expect(faultsOf(project)).toEqual([]);
  project.steps.push({ ...STEP, id: 'd', start: 9 });
  expect(faultsOf(project)).toEqual(['/steps/3/start']);
});

test.each<[string, (p: ReturnType<typeof sound>) => unknown, string]>([
  ['not an object', () => 7, '/'],
  ['another format', (p) => ({ ...p, format: 'x' }), '/format'],
  ['a version of the future', (p) => ({ ...p, version: 99 }), '/version'],
  ['an odd width', (p) => ({ ...p, canvas: { ...p.canvas, width: 1921 } }), '/canvas/width'],
  ['an unknown property', (p) => ({ ...p, extra: 1 }), '/'],
  [
    'a fraction of a tick',
    (p) => ((p.lanes[1]!.clips[0]!.start = 0.5), p),
    '/lanes/1/clips/0/start',
  ],
  [
    'a clip beyond its footage',
    (p) => ((p.lanes[1]!.clips[0]!.source = 5e9), p),
    '/lanes/1/clips/0/duration',
  ],
  [
    'footage that is not there',
    (p) => ((p.lanes[1]!.clips[0]!.footageId = 'gone'), p),
    '/lanes/1/clips/0/footageId',
  ],
  [
    'two clips over each other',
    (p) => (p.lanes[1]!.clips.push({ ...p.lanes[1]!.clips[0]!, id: 'b' }), p),
    '/lanes/1/clips/1/start',
  ],
  ['an id used twice', (p) => ((p.lanes[0]!.id = 'screen'), p), '/lanes/1/id'],
])('%s is refused with its place', (_name, break_, path) => {
  expect(faultsOf(break_(sound()))).toContain(path);
});

test('of a changed document what is new is checked, wherever it is, with its place in the whole', () => {
  const before = sound();
  const lane = (change: object) => {
    const lanes = before.lanes.map((l, i) => (i === 1 ? { ...l, ...change } : l));
    return { ...before, lanes };
  };
  const clips = before.lanes[1]!.clips;
  const changes: [unknown, string | null][] = [
    [before, null],
    [lane({ gain: -3 }), null],
    [lane({ gain: 99 }), '/lanes/1/gain'],
    [lane({ clips: [{ ...clips[0]!, speed: 99 }, ...clips.slice(1)] }), '/lanes/1/clips/0/speed'],
    [lane({ clips: [...clips, { ...clips[0]!, id: 'again' }] }), '/lanes/1/clips/1/start'],
    [{ ...before, more: 1 }, '/'],
    [{ ...before, canvas: { ...before.canvas, width: 7 } }, '/canvas/width'],
    [{ ...before, markers: [{ id: 'm' }] }, '/markers/0'],
    [
      {
        ...before,
        lanes: Array.from({ length: 65 }, (_, i) => ({
          ...before.lanes[0]!,
          id: `l${i}`,
          clips: [],
        })),
      },
      '/lanes',
    ],
  ];
  for (const [after, place] of changes) {
    const checked = validateChanged(before, after as never, SOURCES);
    const places = 'faults' in checked ? checked.faults.map((f) => f.path) : [];
    if (place === null) expect(places).toEqual([]);
    else expect(places).toContain(place);
  }
});

test('spans of pointer looks of version 5 do not fade and grow as they did; framings stay as they are', () => {
  const halo = { kind: 'halo', size: 130, color: '#f2b134', softness: 0.6, opacity: 0.6 };
  const framing = {
    ...{ id: 'f', start: 0, end: 90, rampIn: 10, rampOut: 10, footageId: 'screen' },
    ...{ rect: { x: 0, y: 0, width: 960, height: 540 }, pinned: true, reason: '' },
  };
  const old = {
    ...sound(),
    version: 5,
    framings: [framing],
    pointer: [{ id: 'p', start: 0, end: 9, looks: [halo] }],
  };
  expect(validateProject(old, SOURCES)).toMatchObject({
    project: {
      version: 10,
      framings: [{ ...framing, endRect: null }],
      pointer: [{ fadeIn: 0, fadeOut: 0, looks: [{ ...halo, grows: true }] }],
    },
  });
});
