import { UNPOSED } from '@/core/callout/keyframes';
import { counter, emptyProject, facts, SOURCES } from '@/core/edit/fixture';
import { placeFootage } from '@/core/edit/place';
import { addSpan } from '@/core/edit/spans';
import type { FramePlan, Layer } from '@/core/frame/plan';
import { planFrame } from '@/core/frame/plan-frame';
import { LOOKS, type PointerLookName } from '@/core/pointer/looks';
import { newLook, pointerSpan, type PointerLook } from '@/core/pointer/model';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { secondsToTicks } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes } from '@/kernels/planar';
import { testHeap } from '@/kernels/testing';
import { Compositor } from './compositor';
import { plainRasterizer, solidFrame } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

const SIZE = { width: 640, height: 360 };
const END = secondsToTicks(8);
const at = secondsToTicks;

/** Goes from left to right in the first two seconds, rests, and presses at 3 s. */
const track: PointerTrack = {
  ...{ format: 'vistum-pointer', version: 2, width: 1280, height: 720, inPicture: false },
  samples: [
    [0, 200, 360],
    [2000, 640, 360],
    [8000, 640, 360],
  ],
  events: [
    { t: 3000, type: 'down', button: 0 },
    { t: 3100, type: 'up', button: 0 },
    { t: 3000, type: 'key', key: 'Control+s' },
  ],
};
const screen = facts('screen', 'screen', 8, { width: 1280, height: 720 });
const sourcesWith = (pointer: PointerTrack): Sources => ({
  footage: { ...SOURCES.footage, screen },
  pointers: { screen: pointer },
});

function project(...spans: (readonly [from: number, to: number, looks: PointerLook[]])[]): Project {
  const made = emptyProject();
  Object.assign(made.canvas, { width: 1280, height: 720 });
  placeFootage(made, screen, 0, counter());
  spans.forEach(([from, to, looks], i) =>
    addSpan(made, 'pointer', pointerSpan(`p${i}`, { start: at(from), end: at(to) }, looks)),
  );
  return made;
}

const layersOf = (p: Project, seconds: number, pointer = track): readonly Layer[] =>
  planFrame(p, sourcesWith(pointer), at(seconds), SIZE).layers;

/** The bytes of a picture over a recording of one colour. */
function drawn(layers: readonly Layer[], paint?: (bytes: Uint8Array) => void): Uint8Array {
  const source = solidFrame(heap, '#808080', screen);
  paint?.(frameBytes(heap, source));
  const target = allocateFrame(heap, SIZE.width, SIZE.height);
  const plan: FramePlan = { size: SIZE, background: '#000000', layers };
  new Compositor(heap, plainRasterizer).compose(
    plan,
    () => ({ picture: source, part: null, before: null, marks: null }),
    target,
  );
  return frameBytes(heap, target).slice();
}

const NAMES = Object.keys(LOOKS) as PointerLookName[];
/**
 * When each look that is seen changes the picture; the others are heard, or change nothing here.
 */
const SEEN_AT: Readonly<Partial<Record<PointerLookName, number>>> = {
  ...{ halo: 1, dim: 1, ring: 3.2, trail: 1, size: 1, hidden: 1, keycaps: 3.2, lens: 1, rest: 7 },
};

test.each(NAMES.filter((name) => SEEN_AT[name] !== undefined))(
  'a look is seen while its span lasts, and only then: %s',
  (name) => {
    const look = { ...newLook(name), ...(name === 'lens' ? { sharp: false } : {}) } as PointerLook;
    const seconds = SEEN_AT[name]!;
    const plain = drawn(layersOf(project(), seconds));
    const isPlain = (until: number) =>
      // Comparing by value takes seconds for so many.
      Buffer.compare(drawn(layersOf(project([0, until, [look]]), seconds)), plain) === 0;
    expect([isPlain(8), isPlain(seconds - 0.5)]).toEqual([false, true]);
  },
);

test('of looks of one kind that overlap, the one that began last counts; others add to each other', () => {
  const halo = (color: string) => ({ ...newLook('halo'), color }) as PointerLook;
  const p = project([0, 8, [halo('#ff0000'), newLook('dim')]], [0.5, 3, [halo('#00ff00')]]);
  const colors = (seconds: number) =>
    layersOf(p, seconds).flatMap((l) =>
      l.kind === 'drawing' && l.mark.kind === 'disc' ? [l.mark.color] : [],
    );
  const dims = (seconds: number) => layersOf(p, seconds).filter((l) => l.kind === 'region').length;
  expect([colors(0.2), colors(1), colors(4)]).toEqual([['#ff0000'], ['#00ff00'], ['#ff0000']]);
  expect([dims(0.2), dims(1), dims(4)]).toEqual([1, 1, 1]);
});

test('the fades of a span let its looks in and out', () => {
  const p = project([1, 5, [newLook('halo')]]);
  Object.assign(p.pointer[0]!, { fadeIn: at(1), fadeOut: at(2) });
  const opacity = (seconds: number) => {
    const disc = layersOf(p, seconds).find((l) => l.kind === 'drawing' && l.mark.kind === 'disc');
    return disc?.kind === 'drawing' ? disc.opacity : null;
  };
  const full = opacity(2.5)!;
  expect(opacity(0.9)).toBeNull();
  expect(opacity(1.5)).toBeCloseTo(full / 2, 5);
  expect(opacity(4)).toBeCloseTo(full / 2, 5);
});

test('sizes are those of the frame in closer views, unless they are to grow', () => {
  const width = (grows: boolean) => {
    const p = project([0, 8, [{ ...newLook('halo'), grows } as PointerLook]]);
    addSpan(p, 'framings', {
      ...{ id: 'f', start: 0, end: END, rampIn: 0, rampOut: 0, footageId: 'screen' },
      ...{ rect: { x: 320, y: 180, width: 640, height: 360 }, endRect: null },
      ...{ pinned: true, reason: '' },
    });
    const disc = layersOf(p, 4).find((l) => l.kind === 'drawing' && l.mark.kind === 'disc');
    return disc?.kind === 'drawing' && disc.mark.kind === 'disc' ? disc.mark.diameter : 0;
  };
  expect(width(false)).toBe(65);
  expect(width(true)).toBe(130);
});

test('one that the recording shows is drawn over only where a size is asked for, at its own tip', () => {
  const shown = { ...track, inPicture: true };
  const pointers = (looks: PointerLook[]) =>
    layersOf(project([0, 8, looks]), 1, shown).flatMap((l) =>
      l.kind === 'drawing' && l.mark.kind === 'pointer' ? [l.mark.tip] : [],
    );
  expect(pointers([newLook('halo')])).toEqual([]);
  expect(pointers([newLook('size'), newLook('steady')])).toEqual([{ x: 210, y: 180 }]);
  expect(pointers([newLook('size'), newLook('hidden')])).toEqual([]);
});

test('a lens shows nothing that a cover hides', () => {
  const p = project([0, 8, [{ ...newLook('lens'), sharp: false, size: 300 } as PointerLook]]);
  // Something private, white as nothing else is, near the pointer at 4 s.
  const secret = { x: 600, y: 400, width: 120, height: 40 };
  const paint = (bytes: Uint8Array) => {
    for (let y = secret.y; y < secret.y + secret.height; y++)
      bytes.fill(235, y * 1280 + secret.x, y * 1280 + secret.x + secret.width);
  };
  const brightest = (layers: readonly Layer[]) =>
    drawn(layers, paint)
      .subarray(0, SIZE.width * SIZE.height)
      .reduce((most, value) => Math.max(most, value), 0);
  const without = (layers: readonly Layer[]) =>
    layers.filter((l) => l.kind !== 'drawing' || l.mark.kind !== 'pointer');
  expect(brightest(without(layersOf(p, 4)))).toBeGreaterThan(200);
  addSpan(p, 'callouts', {
    ...{ id: 'c', start: 0, end: END, anchor: { to: 'footage', footageId: 'screen' }, ...UNPOSED },
    ...{ kind: 'cover', way: 'solid', color: '#101010', strength: 20, rect: secret },
  });
  expect(brightest(without(layersOf(p, 4)))).toBeLessThan(140);
});

test('a lens is no closer than the sharp limit, and is not there where that leaves nothing', () => {
  const lens = (more: object) =>
    layersOf(project([0, 8, [{ ...newLook('lens'), ...more } as PointerLook]]), 4).filter(
      (l) => l.kind === 'video' && l.mask,
    );
  // The frame has the recording's size: whatever magnifies it spreads its pixels.
  expect(lens({ sharp: true })).toEqual([]);
  expect(lens({ sharp: false })).toHaveLength(1);
});

test('while the pointer is hidden nothing is drawn at it; keys are seen all the same', () => {
  const gone = { ...track, hidden: [[2500, 4000]] as const };
  const p = project([0, 8, ['halo', 'ring', 'size', 'keycaps'].map((k) => newLook(k as never))]);
  const kinds = (seconds: number) =>
    layersOf(p, seconds, gone).flatMap((l) => (l.kind === 'drawing' ? [l.mark.kind] : []));
  expect(kinds(3.2)).toEqual(['keys']);
  expect(kinds(4.2)).toEqual(expect.arrayContaining(['disc', 'pointer']));
});
