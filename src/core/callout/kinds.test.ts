import { AS_IT_IS } from './keyframes';
import fc from 'fast-check';
import { emptyProject, SOURCES } from '../edit/fixture';
import { addSpan } from '../edit/spans';
import { calloutScene } from '../frame/callout-layers';
import { planFrame } from '../frame/plan-frame';
import type { Layer } from '../frame/plan';
import type { Callout, Project } from '../project/model';
import { validateProject } from '../project/validate';
import type { Sources } from '../project/sources';
import { sceneAt } from '../scene/scene';
import { checkOf } from '../schema/check';
import { secondsToTicks } from '../time/ticks';
import type { Anchor } from './anchor';
import { WHOLE } from './kind';
import { numberOf } from './number';
import { kindOf, type CalloutKindName } from './kinds';
import { keysIn } from './kinds/keycaps';
import { pictureAt } from './kinds/picture';
import { END, FOOTAGE, made, NAMES, SPOT, withCallout } from './testing';

/** The check of each kind, compiled once. */
const CHECKS = Object.fromEntries(
  NAMES.map((kind) => [kind, checkOf(kindOf({ kind }).schema)]),
) as Record<CalloutKindName, ReturnType<typeof checkOf>>;
const FRAME = { width: 1920, height: 1080 };

const layersOf = (project: Project, sources: Sources = SOURCES, seconds = 4): Layer[] =>
  planFrame(project, sources, secondsToTicks(seconds), FRAME).layers.filter(
    (l) => l.kind !== 'video',
  );

test.each(NAMES)('a new %s is sound, is seen while it lasts, and only then', (kind) => {
  const project = withCallout(made(kind));
  expect(CHECKS[kind](project.callouts[0])).toHaveProperty('value');
  expect(validateProject(structuredClone(project), SOURCES)).toHaveProperty('project');
  expect(layersOf(project).length).toBeGreaterThan(0);
  expect(layersOf(project, SOURCES, 8)).toEqual([]);
  expect(kindOf({ kind }).title(project.callouts[0]!)).not.toBe('');
});

test.each(NAMES)('the handles of a %s move what they say and stay within its schema', (kind) => {
  const { handles, withHandle } = kindOf({ kind });
  const far = fc.double({ min: -3000, max: 3000, noNaN: true });
  fc.assert(
    fc.property(far, far, fc.nat(9), (dx, dy, which) => {
      const item = made(kind);
      const all = handles(item);
      const handle = all[which % all.length]!;
      const move = { by: { dx, dy }, frame: { dx: dx * 0.75, dy: dy * 0.75 } };
      const moved = { ...item, ...withHandle(item, handle.id, move) };
      expect(CHECKS[kind](moved)).toHaveProperty('value');
      const after = handles(moved as Callout).find((h) => h.id === handle.id)!;
      if (handle.look === 'words') {
        expect(after.shift.dx - handle.shift.dx).toBeCloseTo(move.frame.dx, 6);
        expect(after.at).toEqual(handle.at);
      } else if (!('rect' in item) || handle.look === 'area') {
        expect(after.at.x - handle.at.x).toBeCloseTo(dx, 6);
        expect(after.at.y - handle.at.y).toBeCloseTo(dy, 6);
      }
      // What is not under the hand stays: another corner, the words of an arrow.
      if (handle.id === 'from')
        expect(handles(moved as Callout).find((h) => h.id === 'to')!.at).toEqual(
          all.find((h) => h.id === 'to')!.at,
        );
    }),
  );
});

test.each(NAMES)('all of a %s moves together, and keeps its size', (kind) => {
  const { handles, withHandle } = kindOf({ kind });
  fc.assert(
    fc.property(
      fc.integer({ min: -300, max: 300 }),
      fc.integer({ min: -300, max: 300 }),
      (dx, dy) => {
        const item = made(kind);
        const move = { by: { dx, dy }, frame: { dx: dx / 2, dy: dy / 2 } };
        const moved = { ...item, ...withHandle(item, WHOLE, move) } as Callout;
        const [before, after] = [handles(item), handles(moved)];
        before.forEach((handle, i) => {
          expect(after[i]!.at.x - handle.at.x).toBeCloseTo(dx, 6);
          expect(after[i]!.at.y - handle.at.y).toBeCloseTo(dy, 6);
          expect(after[i]!.shift).toEqual(handle.shift);
          const grown = (side: 'width' | 'height') =>
            (after[i]!.size?.[side] ?? 0) - (handle.size?.[side] ?? 0);
          for (const side of ['width', 'height'] as const) expect(grown(side)).toBeCloseTo(0, 6);
        });
      },
    ),
  );
});

test('counts number themselves by when they begin, over the project or their step', () => {
  const project = withCallout(made('count'));
  const base = project.callouts[0] as Callout & { kind: 'count' };
  const at = (id: string, seconds: number, over: 'project' | 'step' = 'project') => ({
    ...base,
    ...{ id, over, start: secondsToTicks(seconds), end: secondsToTicks(seconds + 2) },
  });
  const step = (id: string, seconds: number) => ({
    ...project.steps[0]!,
    ...{ id, start: secondsToTicks(seconds) },
  });
  project.callouts = [at('b', 3), at('a', 1), at('c', 3), at('s1', 2, 'step'), at('s2', 6, 'step')];
  project.callouts.push(at('s3', 7, 'step'));
  const numbers = () =>
    Object.fromEntries(project.callouts.map((c) => [c.id, numberOf(project, c as typeof base)]));
  expect(numbers()).toEqual({ a: 1, b: 2, c: 3, s1: 1, s2: 2, s3: 3 });
  project.steps = [step('x', 0), step('y', 5)];
  expect(numbers()).toEqual({ a: 1, b: 2, c: 3, s1: 1, s2: 1, s3: 2 });
  // One that goes leaves no gap.
  project.callouts = project.callouts.filter(({ id }) => id !== 'a');
  expect(numbers()).toMatchObject({ b: 1, c: 2 });
  const words = layersOf(project, SOURCES, 4).flatMap((layer) =>
    layer.kind === 'drawing' && layer.mark.kind === 'words' ? [layer.mark.text] : [],
  );
  expect(words).toEqual(['1', '2']);
});

test('a marker pen is drawn on from the left, and leaves dark letters dark', () => {
  const project = withCallout(made('highlight'));
  const { rect } = project.callouts[0] as Callout & { kind: 'highlight' };
  const line = (seconds: number) => {
    const [layer] = layersOf(project, SOURCES, seconds);
    if (layer?.kind !== 'drawing' || layer.mark.kind !== 'lines') throw new Error('It is a line.');
    expect(layer.blend).toBe('tint');
    const [from, to] = layer.mark.paths[0]!;
    return { from: from!.x, to: to!.x, width: layer.mark.width };
  };
  const [early, late] = [line(0.1), line(2)];
  expect(early.from).toBeCloseTo(late.from, 9);
  expect(early.to).toBeLessThan(late.to);
  // The frame has three quarters of the recording's pixels; round ends are part of the width.
  expect(late.to + late.width / 2 - (late.from - late.width / 2)).toBeCloseTo(rect.width * 0.75, 6);
  expect(late.width).toBeCloseTo(rect.height * 0.75, 6);
});

test('what is outside of a rectangle is dimmed, as far as the callout is there', () => {
  const project = withCallout(made('spotlight'));
  const { rect, dark } = project.callouts[0] as Callout & { kind: 'spotlight' };
  const effect = (seconds: number) => {
    const [layer] = layersOf(project, SOURCES, seconds);
    if (layer?.kind !== 'region' || layer.effect.kind !== 'dim') throw new Error('It dims.');
    return layer.effect;
  };
  expect(effect(4)).toMatchObject({
    ...{ shape: 'box', dark, tall: rect.height / rect.width },
    outer: (rect.width / 2) * 0.75,
  });
  expect(effect(0.1).dark).toBeLessThan(dark);
  // However soft its edge, something stays clear.
  Object.assign(project.callouts[0]!, { softness: 400 });
  expect(effect(4).inner).toBeGreaterThan(0);
});

test('the words of a text stay where they are while its arrow is moved', () => {
  const { handles, withHandle } = kindOf({ kind: 'text' });
  const item = made('text');
  // Footage pixels are three quarters of a frame pixel here.
  const moved = {
    ...item,
    ...withHandle(item, 'tip', { by: { dx: 200, dy: 80 }, frame: { dx: 150, dy: 60 } }),
  };
  const wordsAt = (c: Callout) => {
    const words = handles(c).find((h) => h.id === 'words')!;
    return { x: words.at.x * 0.75 + words.shift.dx, y: words.at.y * 0.75 + words.shift.dy };
  };
  expect(wordsAt(moved as Callout)).toEqual(wordsAt(item));
});

test('on the recording it follows a zoom, on the frame it stays, on the pointer it goes along', () => {
  const track = {
    ...{ format: 'vistum-pointer', version: 1, width: 2560, height: 1440, events: [] },
    samples: [
      [0, 0, 0],
      [10_000, 1000, 500],
    ],
  } as never;
  const sources: Sources = { ...SOURCES, pointers: { screen: track } };
  const pathAt = (anchor: Anchor, seconds: number, zoomed: boolean) => {
    const line = {
      ...(made('line', anchor) as Callout & { kind: 'line' }),
      from: { x: 0, y: 0 },
      to: { x: 200, y: 100 },
    };
    const project = withCallout(line);
    if (zoomed)
      addSpan(project, 'framings', {
        ...{ id: 'f', start: 0, end: END, rampIn: 0, rampOut: 0, footageId: 'screen' },
        ...{
          rect: { x: 0, y: 0, width: 1280, height: 720 },
          endRect: null,
          pinned: true,
          reason: '',
        },
      });
    const layer = layersOf(project, sources, seconds).find((l) => l.kind === 'drawing');
    return layer?.kind === 'drawing' && layer.mark.kind === 'lines' ? layer.mark.paths[0] : null;
  };
  expect(pathAt(FOOTAGE, 4, false)).toEqual([
    { x: 0, y: 0 },
    { x: 150, y: 75 },
  ]);
  expect(pathAt(FOOTAGE, 4, true)).toEqual([
    { x: 0, y: 0 },
    { x: 300, y: 150 },
  ]);
  for (const zoomed of [true, false])
    expect(pathAt({ to: 'frame' }, 4, zoomed)).toEqual([
      { x: 0, y: 0 },
      { x: 200, y: 100 },
    ]);
  expect(pathAt({ to: 'pointer', footageId: 'screen' }, 4, false)).toEqual([
    { x: 300, y: 150 },
    { x: 450, y: 225 },
  ]);
});

test('nothing is drawn of what stands on a recording that is not seen, or on a pointer that none has', () => {
  expect(layersOf(withCallout(made('box', { to: 'footage', footageId: 'camera' })))).toEqual([]);
  expect(layersOf(withCallout(made('box', { to: 'pointer', footageId: 'screen' })))).toEqual([]);
  const alone = emptyProject();
  addSpan(alone, 'callouts', made('box', { to: 'frame' }));
  expect(layersOf(alone)).toHaveLength(1);
});

test('a callout on footage that the project does not have is refused with its place', () => {
  for (const to of ['footage', 'pointer'] as const) {
    const project = withCallout(made('line', { to, footageId: 'gone' }));
    expect(validateProject(project, SOURCES)).toEqual({
      faults: [expect.objectContaining({ path: '/callouts/0/anchor/footageId' })],
    });
  }
  expect(validateProject(withCallout(made('line', { to: 'frame' })), SOURCES)).toHaveProperty(
    'project',
  );
});

describe('a lens', () => {
  const lens = (more: object = {}) => ({ ...made('lens'), ...more }) as Callout & { kind: 'lens' };
  const videos = (callout: Callout, also: Callout[] = []) => {
    const project = withCallout(callout);
    for (const other of also) addSpan(project, 'callouts', other);
    return planFrame(project, SOURCES, secondsToTicks(4), FRAME).layers;
  };

  test('shows its spot so many times as large, and no closer than the sharp limit unless it may', () => {
    const scaleOf = (callout: Callout) => {
      const [, inset] = videos(callout).filter((l) => l.kind === 'video');
      return inset ? inset.destination.width / inset.source.width : null;
    };
    const screen = videos(lens()).find((l) => l.kind === 'video')!;
    const usual = screen.destination.width / screen.source.width;
    expect(scaleOf(lens({ sharp: false, power: 3 }))! / usual).toBeCloseTo(3, 2);
    expect(scaleOf(lens({ sharp: true, power: 6 }))).toBeCloseTo(1, 2);
    // Where nothing is left to magnify there is none.
    expect(scaleOf(lens({ power: 1 }))).toBeNull();
  });

  test('says where it is held back, and where it is soft', () => {
    const said = (more: object) => {
      const item = lens(more);
      const scene = sceneAt(withCallout(item), SOURCES, secondsToTicks(4));
      return kindOf(item).reading!(item, calloutScene(scene, item)!);
    };
    expect(said({ power: 1.1 })).toBeNull();
    expect(said({ power: 4 })).toMatch(/^Magnifies 1\.33× here/);
    expect(said({ power: 4, sharp: false })).toMatch(/^Soft here/);
  });

  test('what is covered is covered within it', () => {
    const item = lens({ sharp: false });
    const cover = { ...made('cover'), id: 'cover', rect: item.rect } as Callout;
    const regions = videos(item, [cover]).filter((l) => l.kind === 'region');
    expect(regions).toHaveLength(2);
    const [, inset] = videos(item).filter((l) => l.kind === 'video');
    expect(regions[1]!.area).toEqual(inset!.destination);
  });

  test('what a cover on the frame hides is hidden within it too', () => {
    const item = lens({ sharp: false });
    const [screen, inset] = videos(item).filter((l) => l.kind === 'video');
    const scale = screen!.destination.width / screen!.source.width;
    const onFrame = {
      x: screen!.destination.x + (item.rect.x - screen!.source.x) * scale,
      y: screen!.destination.y + (item.rect.y - screen!.source.y) * scale,
      ...{ width: item.rect.width * scale, height: item.rect.height * scale },
    };
    const anchor = { to: 'frame' } as const;
    const cover = { ...made('cover', anchor), id: 'cover', rect: onFrame } as Callout;
    const areas = videos(item, [cover]).flatMap((l) => (l.kind === 'region' ? [l.area] : []));
    const near = (a: number) => expect.closeTo(a, -1) as number;
    const { x, y, width, height } = inset!.destination;
    expect(areas).toHaveLength(2);
    expect(areas).toContainEqual({
      ...{ x: near(x), y: near(y), width: near(width), height: near(height) },
    });
  });

  test('stays within the picture, wherever it is put', () => {
    const far = fc.integer({ min: -4000, max: 4000 });
    fc.assert(
      fc.property(far, far, (dx, dy) => {
        const [, inset] = videos(lens({ offset: { dx, dy } })).filter((l) => l.kind === 'video');
        const { x, y, width, height } = inset!.destination;
        expect(Math.min(x, y)).toBeGreaterThanOrEqual(0);
        expect(x + width).toBeLessThanOrEqual(FRAME.width);
        expect(y + height).toBeLessThanOrEqual(FRAME.height);
      }),
      { numRuns: 30 },
    );
  });

  test('on the frame there is nothing to magnify', () => {
    expect(layersOf(withCallout(made('lens', { to: 'frame' })))).toEqual([]);
  });
});

test('keys are told apart by a +, which may be one of them', () => {
  expect(keysIn('Ctrl+Shift+P')).toEqual(['Ctrl', 'Shift', 'P']);
  expect(keysIn('Ctrl + K')).toEqual(['Ctrl', 'K']);
  expect(keysIn('Ctrl++')).toEqual(['Ctrl', '+']);
  expect(keysIn('+')).toEqual(['+']);
  expect(keysIn('  ')).toEqual([]);
});

test('an arrow is drawn on from its tail, in a curve with its head along it', () => {
  const arrow = { ...made('arrow'), course: 'curved', bend: 0.5, heads: 'both' } as Callout;
  const linesAt = (seconds: number) =>
    layersOf(withCallout(arrow), SOURCES, seconds).flatMap((l) =>
      l.kind === 'drawing' && l.mark.kind === 'lines' ? [l.mark.paths] : [],
    )[0]!;
  const [half, whole] = [linesAt(0.125), linesAt(4)];
  expect(half[0]!.length).toBeLessThan(whole[0]!.length);
  expect(half[0]![0]).toEqual(whole[0]![0]);
  expect(whole).toHaveLength(3);
  expect(whole[1]![1]).toEqual(whole[0]!.at(-1));
  expect(whole[2]![1]).toEqual(whole[0]![0]);
});

test('what grows does so about its spot, and ends where it stands', () => {
  const item = { ...made('box'), entrance: 'grow', pace: 1 } as Callout;
  const boundsAt = (seconds: number) => {
    const [layer] = layersOf(withCallout(item), SOURCES, seconds);
    const points =
      layer!.kind === 'drawing' && layer!.mark.kind === 'lines' ? layer!.mark.paths[0]! : [];
    const xs = points.map((p) => p.x);
    return [Math.min(...xs), Math.max(...xs)] as const;
  };
  const [small, large] = [boundsAt(0.3), boundsAt(4)];
  expect(small[0] + small[1]).toBeCloseTo(large[0] + large[1], 6);
  expect(small[1] - small[0]).toBeLessThan((large[1] - large[0]) * 0.9);
});

describe('a pose', () => {
  const markOf = (more: object, seconds = 4, kind: CalloutKindName = 'line') => {
    const item = { ...made(kind), ...more } as Callout;
    const layer = layersOf(withCallout(item), SOURCES, seconds).find((l) => l.kind === 'drawing');
    if (layer?.kind !== 'drawing') throw new Error('It is drawn.');
    return layer;
  };
  const ends = { from: { x: 400, y: 400 }, to: { x: 600, y: 400 } };
  const path = (pose: object, more: object = {}, seconds = 4) => {
    const { mark } = markOf({ ...ends, pose: { ...AS_IT_IS, ...pose }, ...more }, seconds);
    if (mark.kind !== 'lines') throw new Error('It is a line.');
    return mark.paths[0]!.map(({ x, y }) => [x, y].map((n) => Math.round(n * 1000) / 1000));
  };

  test('moves, sizes and turns a callout about its spot, in pixels of what it stands on', () => {
    expect(path({ dx: 40, dy: 80 })).toEqual([
      [330, 360],
      [480, 360],
    ]);
    expect(path({ size: 2 })).toEqual([
      [225, 300],
      [525, 300],
    ]);
    expect(path({ turn: 90 })).toEqual([
      [375, 225],
      [375, 375],
    ]);
    expect(markOf({ pose: { ...AS_IT_IS, opacity: 0.25 } }).opacity).toBe(0.25);
  });

  test('that is kept at two instants goes over from the one to the other', () => {
    const keyframes = [
      { ...AS_IT_IS, at: secondsToTicks(2) },
      { ...AS_IT_IS, at: secondsToTicks(6), dx: 400 },
    ];
    const left = (seconds: number) => path({}, { keyframes }, seconds)[0]![0];
    expect([1, 2, 4, 6, 7].map(left)).toEqual([300, 300, 450, 600, 600]);
  });

  test('turns words and keycaps as they stand, and a picture about its middle', () => {
    for (const kind of ['text', 'keycaps', 'picture', 'count'] as const) {
      const layers = layersOf(
        withCallout({ ...made(kind), pose: { ...AS_IT_IS, turn: 30 } } as Callout),
      );
      const turns = layers.flatMap((l) =>
        l.kind === 'drawing' && 'turn' in l.mark ? [l.mark.turn] : [],
      );
      expect(turns).toEqual([30]);
    }
  });

  test('of a cover hides all of what it lies on, upright and opaque', () => {
    const area = (turn: number) => {
      const item = { ...made('cover'), pose: { ...AS_IT_IS, turn, opacity: 0 } } as Callout;
      const [layer] = layersOf(withCallout(item));
      if (layer?.kind !== 'region') throw new Error('It covers.');
      return layer.area;
    };
    expect(area(30)).toEqual(area(0));
  });
});

test('a marker pen goes through its lines one after the other', () => {
  const lines = [300, 400, 500].map((y) => ({ x: 100, y, width: 400, height: 40 }));
  const item = { ...made('highlight'), lines, pace: 1.5 } as Callout;
  const widths = (seconds: number) =>
    layersOf(withCallout(item), SOURCES, seconds).flatMap((l) =>
      l.kind === 'drawing' && l.mark.kind === 'lines'
        ? [l.mark.paths[0]![1]!.x - l.mark.paths[0]![0]!.x]
        : [],
    );
  const whole = (400 - 40) * 0.75;
  expect(widths(0.25)).toEqual([expect.closeTo(whole / 2, 6)]);
  expect(widths(0.75)).toEqual([whole, expect.closeTo(whole / 2, 6)]);
  expect(widths(4)).toEqual([whole, whole, whole]);
  // Moved together; drawn to another size it marks what lies there now.
  const { withHandle } = kindOf(item);
  const move = { by: { dx: 5, dy: 7 }, frame: { dx: 4, dy: 5 } };
  expect(withHandle(item, WHOLE, move)).toMatchObject({ lines: [{ x: 105, y: 307 }, {}, {}] });
  expect(withHandle(item, 'corner', move)).toMatchObject({ lines: [] });
});

test('a still keeps its shape, and is no larger than it is when it is put in', () => {
  const small = pictureAt(SPOT, 'still', { width: 64, height: 32 });
  expect(small.rect).toMatchObject({ width: (64 * 1440) / 1080, height: (32 * 1440) / 1080 });
  const large = pictureAt(SPOT, 'still', { width: 30_000, height: 20_000 });
  expect(large.rect.height).toBeCloseTo(0.3 * 1440, 6);
  expect(large.rect.width / large.rect.height).toBeCloseTo(1.5, 6);
  const item = made('picture') as Callout & { kind: 'picture' };
  const move = { by: { dx: 90, dy: 3 }, frame: { dx: 68, dy: 2 } };
  const { rect } = kindOf(item).withHandle(item, 'corner', move) as typeof item;
  expect(rect.width / rect.height).toBeCloseTo(4 / 3, 6);
  expect(rect.width).toBeCloseTo(item.rect.width + 90, 6);
  expect(validateProject(withCallout({ ...item, footageId: 'gone' }), SOURCES)).toEqual({
    faults: [expect.objectContaining({ path: '/callouts/0/footageId' })],
  });
});
