import { DEFAULT_KEY } from '@/core/edit/settings';
import type { VideoLayer } from '@/core/frame/plan';
import { parseColor, rgbToYuv } from '@/core/key/color';
import type { KernelHeap } from '@/kernels/heap';
import { frameBytes, type PlanarFrame } from '@/kernels/planar';
import { testHeap } from '@/kernels/testing';
import { drawer, near, solidFrame, wholeVideo } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});
const W = 96;
const H = 64;
const whole = { x: 0, y: 0, width: W, height: H };
const video = (more: Partial<VideoLayer> = {}) => wholeVideo(whole, more);
const solid = (color: string) => solidFrame(heap, color, whole);
const { draw, drawn } = drawer(() => heap, whole);

const key = { footageId: 'f', ...DEFAULT_KEY, color: '#2f9a4b' };
/** The left half is a person, the right half the wall. */
function person(): PlanarFrame {
  const frame = solid('#2f9a4b');
  const [y, u, v] = rgbToYuv(parseColor('#c98d6c'));
  const bytes = frameBytes(heap, frame);
  for (let row = 0; row < H; row++) bytes.fill(y, row * W, row * W + W / 2);
  for (let row = 0; row < H / 2; row++) {
    bytes.fill(u, W * H + (row * W) / 2, W * H + (row * W) / 2 + W / 4);
    bytes.fill(v, W * H * 1.25 + (row * W) / 2, W * H * 1.25 + (row * W) / 2 + W / 4);
  }
  return frame;
}

test('choke takes pixels off the edge, growing adds them, feather softens it', () => {
  const edge = (more: Partial<VideoLayer['key']>) => {
    const at = draw([video({ key: { ...key, ...more }, matte: true })], { c: person() });
    return Array.from({ length: W }, (_, x) => at(x, 30)[1]);
  };
  const width = (row: number[]) => row.filter((v) => v > 128).length;
  expect(Math.abs(width(edge({})) - 48)).toBeLessThanOrEqual(1);
  expect(width(edge({}))).toBe(width(edge({ choke: 4 })) + 4);
  expect(width(edge({ choke: -4 }))).toBe(width(edge({})) + 4);
  const soft = edge({ feather: 10 });
  expect(soft.filter((v) => v > 20 && v < 235).length).toBeGreaterThan(5);
});

test('what lies outside the garbage rectangle goes, whatever its colour', () => {
  const at = draw(
    [video({ key: { ...key, garbage: { x: 20, y: 10, width: 76, height: 54 } } })],
    { c: person() },
    '#445566',
  );
  near(at(10, 30), [0x44, 0x55, 0x66]);
  near(at(30, 5), [0x44, 0x55, 0x66]);
  near(at(30, 30), [0xc9, 0x8d, 0x6c], 6);
});

test('a wall in uneven light goes everywhere when its light is known', () => {
  const frame = solid('#2f9a4b');
  const bytes = frameBytes(heap, frame);
  const columns = 8;
  const cells = Array.from({ length: columns }, (_, i) =>
    rgbToYuv(
      [0x2f, 0x9a, 0x4b].map((n) => n * (0.45 + 0.55 * (i / 7))) as [number, number, number],
    ),
  );
  for (let row = 0; row < H * 1.5; row++)
    for (let x = 0; x < W; x++) {
      const luma = row < H;
      if (!luma && x >= W / 2) continue;
      const cell = cells[Math.min(7, Math.floor(((luma ? x : x * 2) / W) * 8))]!;
      if (luma) bytes[row * W + x] = cell[0];
      else if (row < H * 1.5 && row - H < H / 2) {
        bytes[W * H + ((row - H) * W) / 2 + x] = cell[1];
        bytes[W * H * 1.25 + ((row - H) * W) / 2 + x] = cell[2];
      }
    }
  const wall = {
    columns,
    rows: 1,
    y: cells.map((c) => c[0]),
    u: cells.map((c) => c[1]),
    v: cells.map((c) => c[2]),
  };
  const at = draw([video({ key: { ...key, tolerance: 6, wall }, matte: true })], { c: frame });
  for (const x of [5, 30, 55, 80, 92]) near(at(x, 30), [0, 0, 0], 6);
  const flat = draw([video({ key: { ...key, tolerance: 6 }, matte: true })], { c: frame });
  expect(flat(5, 30)[1]).toBeGreaterThan(60);
});

test('a matte tells by itself, at the place that a layer shows, and without one nothing is keyed', () => {
  const matte = solid('#000000');
  const opacity = frameBytes(heap, matte);
  // The upper half is the person, whatever its colour.
  opacity.fill(255, 0, (W * H) / 2).fill(0, (W * H) / 2, W * H);
  const layer = video({ key: { ...key, method: 'person' }, matteId: 'm' });
  const frame = solid('#c98d6c');
  const picture = (of: PlanarFrame) => ({ picture: of, part: null, before: null, marks: null });
  const at = drawn([layer], (_, what) => picture(what === 'matte' ? matte : frame), '#204060');
  near(at(40, 10), [0xc9, 0x8d, 0x6c], 6);
  near(at(40, 54), [0x20, 0x40, 0x60], 6);
  // Its lower half alone, twice as large.
  const lower = { ...layer, source: { x: 0, y: H / 2, width: W / 2, height: H / 2 } };
  const below = drawn([lower], (_, what) => picture(what === 'matte' ? matte : frame), '#204060');
  near(below(40, 20), [0x20, 0x40, 0x60], 6);
  const bare = drawn([layer], (_, what) => (what === 'matte' ? null : picture(frame)), '#204060');
  near(bare(40, 54), [0xc9, 0x8d, 0x6c], 6);
});

test('what is behind is blurred without the person, who keeps their colours', () => {
  const matte = solid('#000000');
  frameBytes(heap, matte).fill(0, 0, W * H);
  for (let row = 0; row < H; row++) frameBytes(heap, matte).fill(255, row * W, row * W + W / 2);
  const layer = video({
    ...{ key: { ...key, method: 'person' }, matteId: 'm', backdrop: { blur: 12 } },
  });
  const frame = person();
  const at = drawn([layer], (_, what) => ({
    ...{ picture: what === 'matte' ? matte : frame, part: null, before: null, marks: null },
  }));
  near(at(20, 30), [0xc9, 0x8d, 0x6c], 6);
  // Right beside the person the wall has nothing of them.
  for (const x of [54, 60, 90]) near(at(x, 30), [0x2f, 0x9a, 0x4b], 8);
});

test('further samples of the wall go too', () => {
  const frame = person();
  const bytes = frameBytes(heap, frame);
  const [y, u, v] = rgbToYuv(parseColor('#1f5a8c'));
  for (let row = 0; row < H; row++) bytes.fill(y, row * W + 72, row * W + W);
  for (let row = 0; row < H / 2; row++) {
    bytes.fill(u, W * H + (row * W) / 2 + 36, W * H + (row * W) / 2 + W / 2);
    bytes.fill(v, W * H * 1.25 + (row * W) / 2 + 36, W * H * 1.25 + (row * W) / 2 + W / 2);
  }
  const matteAt = (samples: string[]) =>
    draw([video({ key: { ...key, samples }, matte: true })], { c: frame })(86, 30)[1]!;
  expect(matteAt([])).toBeGreaterThan(200);
  expect(matteAt(['#1f5a8c'])).toBeLessThan(20);
});

test('light wraps around the outline and leaves the middle', () => {
  const edge = (wrap: number, x: number) =>
    draw([video({ key: { ...key, wrap } })], { c: person() }, '#ffffff')(x, 30)[2]!;
  expect(edge(1, 46)).toBeGreaterThan(edge(0, 46) + 10);
  expect(Math.abs(edge(1, 10) - edge(0, 10))).toBeLessThanOrEqual(2);
});

test('the fill behind stays within the mask', () => {
  const at = draw(
    [video({ key, backdrop: '#e3eef2', mask: { shape: 'ellipse', feather: 0 } })],
    { c: person() },
    '#000000',
  );
  near(at(80, 32), [0xe3, 0xee, 0xf2]);
  near(at(94, 2), [0, 0, 0]);
});
