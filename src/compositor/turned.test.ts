import type { RegionLayer, TurnedLayer } from '@/core/frame/plan';
import { turnedAbout } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, type PlanarFrame } from '@/kernels/planar';
import { testHeap } from '@/kernels/testing';
import { drawer, near, solidFrame, wholeVideo } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});
const OUTPUT = { width: 128, height: 96 };
const { draw } = drawer(() => heap, OUTPUT);
/** What is turned is larger than what of it is seen. */
const SIZE = { width: 160, height: 140 };

const turnedBy = (turn: number, more: Partial<TurnedLayer> = {}): TurnedLayer => ({
  ...{ kind: 'turned', layers: [wholeVideo(SIZE)], size: SIZE, background: '#000000', turn },
  ...{ about: { x: 64, y: 48 }, destination: { x: 0, y: 0, ...OUTPUT } },
  ...{ mask: null, opacity: 1, blend: 'normal', ...more },
});

/** A dark picture with light spots of eight pixels about some places. */
function spots(places: readonly (readonly [number, number])[]): PlanarFrame {
  const frame = solidFrame(heap, '#202020', SIZE);
  const bytes = frameBytes(heap, frame);
  for (const [x, y] of places)
    for (let row = y - 4; row < y + 4; row++)
      bytes.fill(235, row * SIZE.width + x - 4, row * SIZE.width + x + 4);
  return frame;
}

test('what is turned comes to where its middle and its angle say', () => {
  const places = [
    [80, 70],
    [110, 60],
    [60, 96],
    [96, 40],
  ] as const;
  for (const turn of [0, 7, -20, 45, 90]) {
    const at = draw([turnedBy(turn)], { c: spots(places) });
    for (const [x, y] of places) {
      const to = turnedAbout({ x: x - 80 + 64, y: y - 70 + 48 }, { x: 64, y: 48 }, turn);
      if (to.x < 6 || to.y < 6 || to.x > 122 || to.y > 90) continue;
      expect(at(Math.floor(to.x), Math.floor(to.y))[0]).toBeGreaterThan(220);
    }
    expect(at(4, 48)[0]).toBeLessThan(60);
  }
});

test('it is opaque all over its place, and leaves all else as it is', () => {
  const frame = solidFrame(heap, '#cc4422', SIZE);
  const destination = { x: 16, y: 8, width: 96, height: 80 };
  const at = draw([turnedBy(12, { destination })], { c: frame }, '#102030');
  for (const [x, y] of [
    [17, 9],
    [110, 9],
    [17, 86],
    [110, 86],
    [64, 48],
  ] as const)
    near(at(x, y), [0xcc, 0x44, 0x22]);
  near(at(14, 48), [0x10, 0x20, 0x30]);
  near(at(64, 90), [0x10, 0x20, 0x30]);
});

test('its outline and its opacity stay upright; without its recording it is the background', () => {
  const frame = solidFrame(heap, '#ffffff', SIZE);
  const mask = { shape: 'ellipse', feather: 0 } as const;
  const masked = draw([turnedBy(20, { mask })], { c: frame }, '#000000');
  near(masked(64, 48), [255, 255, 255]);
  near(masked(2, 2), [0, 0, 0]);
  near(masked(125, 93), [0, 0, 0]);
  const half = draw([turnedBy(20, { opacity: 0.5 })], { c: frame }, '#000000');
  near(half(64, 48), [128, 128, 128], 6);
  near(draw([turnedBy(20, { background: '#336699' })], {})(64, 48), [0x33, 0x66, 0x99]);
});

test('effects and what is drawn turn along', () => {
  const frame = solidFrame(heap, '#ffffff', SIZE);
  const cover: RegionLayer = {
    kind: 'region',
    area: { x: 120, y: 60, width: 20, height: 20 },
    effect: { kind: 'solid', color: '#000000' },
  };
  const at = draw([turnedBy(30, { layers: [wholeVideo(SIZE), cover] })], { c: frame });
  const to = turnedAbout({ x: 64 + 50, y: 48 }, { x: 64, y: 48 }, 30);
  near(at(Math.floor(to.x), Math.floor(to.y)), [0, 0, 0]);
  near(at(114, 48), [255, 255, 255]);
});

test('memory that was used before leaves no trace', () => {
  const room = allocateFrame(heap, 512, 512);
  frameBytes(heap, room).fill(77);
  heap.release(room.y.at);
  const frame = solidFrame(heap, '#cc4422', SIZE);
  const at = draw([turnedBy(3, { layers: [] })], { c: frame }, '#102030');
  near(at(64, 48), [0, 0, 0]);
});
