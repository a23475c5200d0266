import type { OutlineMark } from './mark';
import { curveThrough, PEBBLE } from '../layout/own-shape';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { changeKey, changePresenter } from '../edit/settings';
import type { PresenterPlacement } from '../layout/placement';
import type { Sources } from '../project/sources';
import { secondsToTicks } from '../time/ticks';
import { reflectionOf, ringOf, shadowOf } from './edge';
import { planFrame } from './plan-frame';
import type { DrawingLayer, Layer, VideoLayer } from './plan';
import { reflectedCovers } from './reflected-covers';
import type { InOutput } from '../scale/rect';

const OUTPUT = { width: 960, height: 540 };
const box = { x: 100, y: 60, width: 200, height: 120 };

/** What is drawn of a presenter alone, with a key and a placement. */
function drawn(
  placement: Partial<PresenterPlacement>,
  key: Parameters<typeof changeKey>[2] | null,
  mattes: Sources['mattes'] = {},
) {
  const sources = { ...SOURCES, mattes };
  const project = emptyProject();
  placeFootage(project, sources.footage.camera!, 0, counter());
  placeFootage(project, sources.footage.screen!, 0, counter());
  changePresenter(project, placement);
  if (key) changeKey(project, 'camera', key);
  const { layers } = planFrame(project, sources, secondsToTicks(1), OUTPUT);
  const at = layers.findIndex((l) => l.kind === 'video' && l.footageId === 'camera');
  return { layers, camera: layers[at] as VideoLayer, before: layers.slice(0, at) };
}

const shadows = (layers: readonly { readonly kind: string }[]) =>
  layers.filter(
    (l) => l.kind === 'drawing' && ((l as DrawingLayer).mark as { soft?: number }).soft,
  );

test('a ring stands beyond its gap with all of its width, on whole even pixels', () => {
  expect(ringOf(box, null, null, 1)).toEqual([]);
  const [plain] = ringOf(box, null, { width: 6, color: '#000000' }, 0.5);
  expect(plain!.mark).toMatchObject({ box, stroke: { width: 3 } });
  const mask = { shape: 'rounded', radius: 20, feather: 0 } as const;
  const [away] = ringOf(box, mask, { width: 6, color: '#000000', gap: 9 }, 1);
  expect(away!.mark).toMatchObject({
    ...{ shape: 'rounded', radius: 32 },
    box: { x: 88, y: 48, width: 224, height: 144 },
  });
});

test('a shadow has the shape of what casts it, and is as dark as it is said', () => {
  expect(shadowOf(box, null, 0, OUTPUT)).toEqual([]);
  const [shadow] = shadowOf(box, { shape: 'squircle', feather: 0 }, 0.4, OUTPUT);
  expect(shadow).toMatchObject({ opacity: 0.4, mark: { shape: 'squircle', stroke: null } });
});

test('an own shape has a ring along it, beyond its gap, and a shadow of its own', () => {
  const points = curveThrough(PEBBLE, box);
  const mask = { shape: 'path', points, feather: 0 } as const;
  const [ring] = ringOf(box, mask, { width: 6, color: '#000000' }, 1);
  expect(ring!.mark).toMatchObject({ shape: 'path', points, box });
  const [away] = ringOf(box, mask, { width: 6, color: '#000000', gap: 9 }, 1);
  expect(away!.mark).toMatchObject({ box: { x: 88, y: 48, width: 224, height: 144 } });
  const further = (away!.mark as OutlineMark).points!;
  points.forEach(({ x, y }, i) =>
    expect(Math.hypot(further[i]!.x - 12 - x, further[i]!.y - 12 - y)).toBeCloseTo(12, 6),
  );
  expect(shadowOf(box, mask, 0.4, OUTPUT)[0]!.mark).toMatchObject({ shape: 'path', points });
});

test('who is on something casts a shadow; who was cut out with nothing behind them casts none', () => {
  const placed = { shadow: 0.5 };
  expect(shadows(drawn(placed, null).before)).toHaveLength(1);
  expect(shadows(drawn(placed, { on: true }).before)).toHaveLength(1);
  expect(shadows(drawn({ ...placed, backdrop: null }, { on: true }).before)).toHaveLength(0);
});

test('a reflection begins below the ring, reaches so far down, and ends with the picture', () => {
  expect(reflectionOf(box, null, 0, 1, OUTPUT)).toBeNull();
  expect(reflectionOf(box, null, 0.5, 1, OUTPUT)).toEqual({
    ...{ ground: 180, end: 228, strength: 0.5, reach: 48 },
  });
  const ring = { width: 6, color: '#000000' };
  expect(reflectionOf(box, ring, 0.5, 1, OUTPUT)!.ground).toBe(184);
  expect(reflectionOf(box, { ...ring, gap: 9 }, 0.5, 1, OUTPUT)!.ground).toBe(196);
  expect(reflectionOf(box, ring, 0.5, 1, { width: 960, height: 200 })!.end).toBe(200);
  expect(reflectionOf(box, ring, 0.5, 1, { width: 960, height: 184 })).toBeNull();
});

test('all of a presenter is reflected on one ground: what is behind them, they, their ring', () => {
  const placed = {
    ...{ reflection: 0.3, corner: 'top-right' as const, backdrop: { footageId: 'still' } },
    ring: { width: 4, color: '#0e6b63', second: null, gap: 6 },
  };
  const { layers } = drawn(placed, { on: true });
  const reflected = layers.filter((l) => 'reflection' in l && l.reflection);
  expect(reflected.map((l) => (l.kind === 'video' ? l.footageId : l.kind))).toEqual([
    ...['still', 'camera', 'drawing'],
  ]);
  const grounds = reflected.map((l) => 'reflection' in l && l.reflection!.ground);
  expect(new Set(grounds).size).toBe(1);
  expect(drawn({ ...placed, reflection: 0 }, { on: true }).camera.reflection).toBeNull();
});

test('a cover on the frame covers a reflection once, whatever lies behind who is reflected', () => {
  const placed = {
    reflection: 0.3,
    corner: 'top-right' as const,
    backdrop: { footageId: 'still' },
  };
  const { layers, camera } = drawn(placed, { on: true });
  const { x, y, width, height } = camera.destination;
  const { ground } = camera.reflection!;
  const ring = ground - y - height;
  // A band across all of the picture, over the presenter's feet.
  const area = { x: 0, y: ground - 12, width: OUTPUT.width, height: 8 } as InOutput;
  const effect = { kind: 'blur', radius: 4 } as const;
  expect(reflectedCovers(layers, [{ kind: 'region', area, effect }])).toEqual([
    {
      ...{ kind: 'region', effect },
      area: { x: x - ring, y: ground + 4, width: width + 2 * ring, height: 8 },
    },
  ]);
  // What lies above all that is reflected, or only dims, is not seen below.
  const above = { ...area, y: y + height - 120, height: 20 };
  expect(reflectedCovers(layers, [{ kind: 'region', area: above, effect }])).toEqual([]);
  const dim = { kind: 'region', area, effect: { kind: 'dim' } } as unknown as Layer;
  expect(reflectedCovers(layers, [dim])).toEqual([]);
});

test('what is put behind a keyed presenter: a colour, their background blurred, a picture', () => {
  expect(drawn({ backdrop: '#123456' }, { on: true }).camera.backdrop).toBe('#123456');
  const { camera } = drawn({ backdrop: { blur: 0.1 } }, { on: true });
  expect(camera.backdrop).toEqual({ blur: camera.footage.height * 0.1 });
  const { before, camera: keyed } = drawn({ backdrop: { footageId: 'still' } }, { on: true });
  expect(keyed.backdrop).toBeNull();
  const still = before.at(-1) as VideoLayer;
  expect(still).toMatchObject({ footageId: 'still', mask: keyed.mask, speed: 0 });
  expect(still.destination).toEqual(keyed.destination);
  // It fills the outline: no part of it is squeezed.
  expect(still.source.width / still.source.height).toBeCloseTo(
    still.destination.width / still.destination.height,
    5,
  );
  // One that is gone leaves nothing, and who is not keyed has nothing behind them.
  expect(drawn({ backdrop: { footageId: 'gone' } }, { on: true }).before).toHaveLength(1);
  expect(drawn({ backdrop: { footageId: 'still' } }, null).before).toHaveLength(1);
});

test('a key without its matte leaves the recording as it is until that is made', () => {
  const method = { on: true, method: 'person' } as const;
  expect(drawn({}, method).camera).toMatchObject({ key: null, matteId: null, backdrop: null });
  const mattes = {
    camera: [{ id: 'm', method: 'person', shot: null, width: 480, height: 270 }],
  } as const;
  const { camera } = drawn({}, method, mattes);
  expect(camera.key?.method).toBe('person');
  expect(camera.matteId).toBe('m');
  expect(drawn({}, { on: true }, mattes).camera.matteId).toBeNull();
});

test.each([
  ['circle', 1],
  ['squircle', 1],
  ['portrait', 3 / 4],
  ['ellipse', 3 / 4],
] as const)(
  'a %s shows the face in its own shape, whatever that of the recording',
  (shape, wide) => {
    const { camera } = drawn({ shape, crop: 0.5 }, null);
    const { source, destination, footage } = camera;
    expect(source.width / source.height).toBeCloseTo(wide, 5);
    expect(destination.width / destination.height).toBeCloseTo(wide, 1);
    expect(source.height).toBeCloseTo(footage.height * 0.5, 5);
  },
);
