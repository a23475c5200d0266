import { DEFAULT_KEY } from '@/core/edit/settings';
import { parseColor, rgbToYuv, yuvToRgb } from '@/core/key/color';
import { estimateWall } from '@/core/key/wall';
import { UNADJUSTED, type FramePlan, type Layer, type VideoLayer } from '@/core/frame/plan';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, type PlanarFrame } from '@/kernels/planar';
import { testHeap } from '@/kernels/testing';
import { Compositor } from './compositor';
import { LruMap } from './lru';
import { near, plainRasterizer, solidFrame, wholeVideo } from './testing';
import { layOutText } from './text-box';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});
const SIZE = { width: 64, height: 48 };
const video = (more: Partial<VideoLayer> = {}) => wholeVideo(SIZE, more);
const solid = (color: string) => solidFrame(heap, color, SIZE);

function draw(layers: Layer[], frame: PlanarFrame | null, background = '#000000') {
  const plan: FramePlan = { size: { width: 64, height: 48 }, background, layers };
  const target = allocateFrame(heap, 64, 48);
  new Compositor(heap, plainRasterizer).compose(
    plan,
    () => frame && { picture: frame, part: null, before: null, marks: null },
    target,
  );
  const bytes = frameBytes(heap, target).slice();
  return (x: number, y: number) =>
    yuvToRgb([
      bytes[y * 64 + x]!,
      bytes[3072 + (y >> 1) * 32 + (x >> 1)]!,
      bytes[3840 + (y >> 1) * 32 + (x >> 1)]!,
    ]);
}
test('where nothing is there is the background, and a missing frame leaves its layer out', () => {
  near(draw([], null, '#336699')(10, 10), [0x33, 0x66, 0x99]);
  near(
    draw([video({ destination: { x: 0, y: 0, width: 32, height: 48 } })], null, '#336699')(3, 3),
    [0x33, 0x66, 0x99],
  );
});

test('a layer fills its destination and nothing else', () => {
  const at = draw(
    [video({ destination: { x: 16, y: 8, width: 32, height: 24 } })],
    solid('#cc4422'),
    '#102030',
  );
  near(at(30, 20), [0xcc, 0x44, 0x22]);
  near(at(4, 4), [0x10, 0x20, 0x30]);
  near(at(60, 40), [0x10, 0x20, 0x30]);
});

test('mirroring swaps the sides', () => {
  const frame = solid('#000000');
  const bytes = frameBytes(heap, frame);
  for (let y = 0; y < 48; y++) bytes.fill(235, y * 64, y * 64 + 32);
  expect(draw([video()], frame)(10, 20)[0]).toBeGreaterThan(240);
  expect(draw([video({ mirror: true })], frame)(10, 20)[0]).toBeLessThan(15);
  expect(draw([video({ mirror: true })], frame)(54, 20)[0]).toBeGreaterThan(240);
});

test('a round mask keeps the middle and clears the corners', () => {
  const at = draw([video({ mask: { shape: 'ellipse', feather: 0 } })], solid('#ffffff'), '#000000');
  near(at(32, 24), [255, 255, 255]);
  near(at(1, 1), [0, 0, 0]);
  near(at(62, 46), [0, 0, 0]);
});

test('the key takes the wall out, leaves the person, and its matte is black and white', () => {
  const key = { footageId: 'f', ...DEFAULT_KEY, color: '#2f9a4b' };
  near(draw([video({ key })], solid('#2f9a4b'), '#445566')(20, 20), [0x44, 0x55, 0x66]);
  near(draw([video({ key })], solid('#dda488'), '#445566')(20, 20), [0xdd, 0xa4, 0x88], 8);
  near(draw([video({ key, matte: true })], solid('#2f9a4b'))(20, 20), [0, 0, 0]);
  near(draw([video({ key, matte: true })], solid('#dda488'))(20, 20), [255, 255, 255]);
});

describe('a mix of two pictures', () => {
  const mix = (amount: number, motion: (Layer & { kind: 'mix' })['motion'] = null) =>
    draw([{ kind: 'mix', from: [video()], to: [], amount, motion }], solid('#ffffff'), '#000000');

  test('is each of them at its ends and half of both in the middle; what lies below is not changed', () => {
    near(mix(0)(9, 9), [255, 255, 255]);
    near(mix(1)(9, 9), [0, 0, 0]);
    near(mix(0.5)(9, 9), [128, 128, 128]);
    near(
      draw([{ kind: 'mix', from: [], to: [], amount: 0.3, motion: null }], null, '#336699')(9, 9),
      [0x33, 0x66, 0x99],
    );
  });

  test('slides in over the first, or pushes it out', () => {
    const slid = mix(0.25, { kind: 'slide', from: 'left' });
    near(slid(10, 20), [0, 0, 0]);
    near(slid(20, 20), [255, 255, 255]);
    const frame = solid('#ffffff');
    const bytes = frameBytes(heap, frame);
    // The right half of the first picture is dark: pushed to the left, it is seen further left.
    for (let y = 0; y < 48; y++) bytes.fill(16, y * 64 + 32, y * 64 + 64);
    const pushed = draw(
      [
        {
          kind: 'mix',
          from: [video()],
          to: [],
          amount: 0.25,
          motion: { kind: 'push', from: 'right' },
        },
      ],
      frame,
    );
    near(pushed(8, 20), [255, 255, 255]);
    near(pushed(24, 20), [0, 0, 0]);
    for (const from of ['top', 'bottom'] as const) {
      const moved = mix(0.5, { kind: 'push', from });
      near(moved(20, from === 'top' ? 4 : 44), [0, 0, 0]);
      near(moved(20, from === 'top' ? 44 : 4), [255, 255, 255]);
    }
  });
});

test('a halo tints what is bright and leaves what is dark', () => {
  const halo: Layer = {
    kind: 'drawing',
    mark: { kind: 'disc', center: { x: 32, y: 24 }, diameter: 40, color: '#f2b134', softness: 0.6 },
    opacity: 1,
    blend: 'tint',
  };
  const bright = draw([video(), halo], solid('#ffffff'));
  expect(bright(32, 24)[2]).toBeLessThan(140);
  near(bright(2, 2), [255, 255, 255]);
  near(draw([video(), halo], solid('#000000'))(32, 24), [0, 0, 0], 20);
});

test('overlays that lie partly or wholly outside are cut off, not written elsewhere', () => {
  for (const x of [-30, 50, 500]) {
    const at = draw(
      [
        video(),
        {
          kind: 'drawing',
          mark: {
            kind: 'outline',
            shape: 'rectangle',
            radius: 0,
            box: { x, y: -10, width: 40, height: 30 },
            fill: '#ffffff',
            stroke: null,
          },
          opacity: 1,
          blend: 'normal',
        },
      ],
      solid('#000000'),
    );
    near(at(30, 40), [0, 0, 0]);
    expect(at(x < 0 ? 4 : 60, 4)[0] > 200).toBe(x !== 500);
  }
});

test('of what is far larger than the picture, the part within it is drawn where it belongs', () => {
  const outline = (shape: 'rounded' | 'ellipse', far: number): Layer => ({
    ...{ kind: 'drawing', opacity: 1, blend: 'normal' },
    mark: {
      ...{ kind: 'outline', shape, radius: 20, fill: null },
      box: { x: 20, y: 24 - far, width: 2 * far, height: 2 * far },
      stroke: { width: 8, color: '#ffffff' },
    },
  });
  for (const shape of ['rounded', 'ellipse'] as const) {
    // Its left edge is straight there: the corners, and most of the circle, are far away.
    const at = draw([outline(shape, 50_000)], solid('#000000'));
    near(at(20, 24), [255, 255, 255]);
    near(at(10, 24), [0, 0, 0]);
    near(at(40, 24), [0, 0, 0]);
  }
});

test('words stay inside the picture and break where they must', () => {
  const output = { width: 800, height: 450 };
  const layer = {
    kind: 'words',
    text: 'some words that are too long for one line of the box',
    tip: { x: 790, y: 440 },
    offset: { dx: 100, dy: 100 },
    fontSize: 20,
    fill: '#000000',
    ink: '#ffffff',
    pointing: 'arrow',
    ...{ ground: true, corner: 0, turn: 0 },
    lettering: { weight: 600, align: 'start', outline: null, shadow: false },
  } as const;
  const box = layOutText(layer, output, plainRasterizer);
  expect(box.lines.length).toBeGreaterThan(1);
  expect(box.lines.map(({ text }) => text).join(' ')).toBe(layer.text);
  expect(box.x >= 0 && box.y >= 0 && box.x + box.width <= 800 && box.y + box.height <= 450).toBe(
    true,
  );
});

test('the wall is found by its colour along the border, and a grey room has none', () => {
  const scene = (color: string) => {
    const [y, u, v] = rgbToYuv(parseColor(color));
    const picture = {
      width: 320,
      height: 180,
      y: new Uint8Array(320 * 180).fill(y),
      u: new Uint8Array(160 * 90).fill(u),
      v: new Uint8Array(160 * 90).fill(v),
    };
    // A person in the middle, and a noisy wall.
    for (let i = 0; i < picture.u.length; i++) {
      const inside = Math.abs((i % 160) - 80) < 40 && i > 160 * 30;
      picture.u[i] = inside ? 110 : picture.u[i]! + ((i * 7) % 5) - 2;
      picture.v[i] = inside ? 150 : picture.v[i]! + ((i * 11) % 5) - 2;
    }
    return estimateWall([picture]);
  };
  const wall = scene('#2f9a4b')!;
  near(parseColor(wall.color), [0x2f, 0x9a, 0x4b], 8);
  expect(wall.tolerance).toBeGreaterThan(3);
  expect(wall.tolerance).toBeLessThan(30);
  expect(scene('#808080')).toBeNull();
});

test('what was not used for longest is forgotten first', () => {
  const gone: string[] = [];
  const map = new LruMap<string>(2, (v) => gone.push(v));
  for (const key of ['a', 'b', 'a', 'c', 'd']) map.get(key, () => key.toUpperCase());
  expect(gone).toEqual(['B', 'A']);
});

test('brightness moves grey by as much as it says, contrast turns around mid-grey', () => {
  near(
    draw([video({ adjust: { ...UNADJUSTED, brightness: 0.1 } })], solid('#808080'))(30, 20),
    [0x80 + 25.5, 0x80 + 25.5, 0x80 + 25.5],
    3,
  );
  near(
    draw([video({ adjust: { ...UNADJUSTED, contrast: 2 } })], solid('#808080'))(30, 20),
    [0x80, 0x80, 0x80],
    3,
  );
  near(
    draw([video({ adjust: { ...UNADJUSTED, contrast: 2 } })], solid('#606060'))(30, 20),
    [0x40, 0x40, 0x40],
    4,
  );
  const round = draw(
    [video({ mask: { shape: 'ellipse', feather: 0 }, adjust: { ...UNADJUSTED, brightness: 0.2 } })],
    solid('#404040'),
    '#000000',
  );
  near(round(32, 24), [0x40 + 51, 0x40 + 51, 0x40 + 51], 4);
  near(round(1, 1), [0, 0, 0]);
});

test('lines are drawn where they are, and cut off at the edge', () => {
  const line = (...path: { x: number; y: number }[]): Layer => ({
    kind: 'drawing',
    mark: { kind: 'lines', paths: [path], closed: false, width: 8, color: '#cc4422' },
    opacity: 1,
    blend: 'normal',
  });
  const at = draw([video(), line({ x: 10, y: 24 }, { x: 400, y: 24 })], solid('#ffffff'));
  near(at(40, 24), [0xcc, 0x44, 0x22], 10);
  near(at(40, 10), [255, 255, 255]);
  near(at(2, 24), [255, 255, 255]);
  near(at(62, 24), [0xcc, 0x44, 0x22], 12);
  const gone = draw([video(), line({ x: 900, y: 900 })], solid('#ffffff'));
  near(gone(62, 46), [255, 255, 255]);
});

test('the pointer is dark with a light edge, its tip where it points', () => {
  const at = draw(
    [
      video(),
      {
        kind: 'drawing',
        mark: { kind: 'pointer', tip: { x: 20, y: 8 }, height: 30, shape: 'arrow' },
        opacity: 1,
        blend: 'normal',
      },
    ],
    solid('#40a0ff'),
  );
  expect(Math.max(...at(23, 22))).toBeLessThan(90);
  near(at(14, 10), [0x40, 0xa0, 0xff], 6);
  near(at(50, 40), [0x40, 0xa0, 0xff], 6);
});
