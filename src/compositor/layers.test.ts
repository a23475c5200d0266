import fc from 'fast-check';
import { DEFAULT_KEY } from '@/core/edit/settings';
import {
  UNADJUSTED,
  type FramePlan,
  type Layer,
  type RegionEffect,
  type VideoLayer,
} from '@/core/frame/plan';
import { parseColor, rgbToYuv } from '@/core/key/color';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, type PlanarFrame } from '@/kernels/planar';
import { noisyPlane, testHeap } from '@/kernels/testing';
import { Compositor } from './compositor';
import type { SourceFrame } from './source-frame';
import { drawer, near, plainRasterizer, solidFrame, wholeVideo } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});
const W = 96;
const H = 64;
const whole = { x: 0, y: 0, width: W, height: H };
const video = (more: Partial<VideoLayer> = {}) => wholeVideo(whole, more);
const solid = (color: string) => solidFrame(heap, color, whole);

const { draw } = drawer(() => heap, whole);

test('a part of the footage is as good as all of it', () => {
  const full = allocateFrame(heap, W, H);
  frameBytes(heap, full).set(noisyPlane(W, H * 1.5, 4));
  const part = { x: 20, y: 10, width: 60, height: 40 };
  const cut = allocateFrame(heap, part.width, part.height);
  for (const [plane, by] of [
    ['y', 1],
    ['u', 2],
    ['v', 2],
  ] as const) {
    const from = full[plane].at + (part.y / by) * full[plane].stride + part.x / by;
    heap.exports.copyRows(
      from,
      full[plane].stride,
      cut[plane].at,
      cut[plane].stride,
      cut[plane].width,
      cut[plane].height,
    );
  }
  const plan = {
    size: { width: W, height: H },
    background: '#000000',
    layers: [video({ source: { x: 40, y: 24, width: 18, height: 12 } })],
  };
  const target = allocateFrame(heap, W, H);
  const compose = (source: SourceFrame) => {
    new Compositor(heap, plainRasterizer).compose(plan, () => source, target);
    return frameBytes(heap, target).slice();
  };
  const [want, got] = [
    compose({ picture: full, part: null, before: null, marks: null }),
    compose({ picture: cut, part, before: null, marks: null }),
  ];
  expect(Buffer.compare(want, got)).toBe(0);
});

describe('masks', () => {
  const shown = (mask: VideoLayer['mask']) => draw([video({ mask })], { c: solid('#ffffff') });

  test('a rectangle with rounded corners', () => {
    const at = shown({ shape: 'rounded', radius: 20, feather: 0 });
    near(at(1, 1), [0, 0, 0]);
    near(at(94, 62), [0, 0, 0]);
    near(at(30, 1), [255, 255, 255]);
    near(at(1, 32), [255, 255, 255]);
    near(at(10, 10), [255, 255, 255]);
  });

  test('a path', () => {
    const at = shown({
      shape: 'path',
      feather: 0,
      points: [
        { x: 0, y: 0 },
        { x: 96, y: 0 },
        { x: 0, y: 64 },
      ],
    });
    near(at(10, 10), [255, 255, 255]);
    near(at(80, 50), [0, 0, 0]);
  });

  test('feathered edges rise from the border inwards', () => {
    const at = shown({ shape: 'rectangle', feather: 20 });
    const values = [0, 4, 8, 12, 16, 22].map((x) => at(x, 32)[1]);
    expect(values).toEqual([...values].sort((a, b) => a - b));
    expect(values[0]).toBeLessThan(8);
    near(at(48, 32), [255, 255, 255]);
  });
});

describe('joining', () => {
  const pictures = () => ({ back: solid('#c08040'), c: solid('#808080') });
  const back = video({ clipId: 'back' });

  test('opacity', () => {
    near(
      draw([back, video({ opacity: 0.25 })], pictures())(40, 30),
      [0xc0 * 0.75 + 32, 0x80 * 0.75 + 32, 0x40 * 0.75 + 32],
      4,
    );
  });

  test('multiply darkens by grey’s share, screen brightens by it, each through its mask', () => {
    const share = 128 / 255;
    near(
      draw([back, video({ blend: 'multiply' })], pictures())(40, 30),
      [0xc0 * share, 0x80 * share, 0x40 * share],
      4,
    );
    const screened = [0xc0, 0x80, 0x40].map((n) => 255 - (255 - n) * (1 - share));
    near(draw([back, video({ blend: 'screen' })], pictures())(40, 30), screened, 4);
    const masked = draw(
      [back, video({ blend: 'multiply', mask: { shape: 'ellipse', feather: 0 } })],
      pictures(),
    );
    near(masked(1, 1), [0xc0, 0x80, 0x40]);
    near(masked(48, 32), [0xc0 * share, 0x80 * share, 0x40 * share], 4);
  });

  test('a quarter turn stands upright, half turns turn back, and nothing is seen beside', () => {
    const layer = video({ destination: { x: 32, y: 24, width: 32, height: 16 }, turn: 90 });
    const at = draw([layer], { c: solid('#ffffff') });
    near(at(48, 20), [255, 255, 255]);
    near(at(48, 44), [255, 255, 255]);
    near(at(36, 32), [0, 0, 0]);
    const half = solid('#000000');
    const bytes = frameBytes(heap, half);
    for (let y = 0; y < H; y++) bytes.fill(235, y * W, y * W + W / 2);
    const turned = draw([video({ turn: 180 })], { c: half });
    near(turned(20, 30), [0, 0, 0]);
    near(turned(76, 30), [255, 255, 255]);
  });
});

test('a cover is the same to the bit whether it was kept or made anew, whatever becomes of what lies under it', () => {
  const pictures = [1, 2].map((seed) => {
    const frame = allocateFrame(heap, W, H);
    frameBytes(heap, frame).set(noisyPlane(W, (H * 3) / 2, seed));
    return frame;
  });
  const target = allocateFrame(heap, W, H);
  const shown = (compositor: Compositor, picture: PlanarFrame, layer: Layer) => {
    const plan: FramePlan = {
      size: { width: W, height: H },
      background: '#000000',
      layers: [video(), layer],
    };
    compositor.compose(plan, () => ({ picture, part: null, before: null, marks: null }), target);
    return frameBytes(heap, target).slice();
  };
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(
          fc.nat(1),
          fc.constantFrom<RegionEffect>(
            { kind: 'blur', radius: 4 },
            { kind: 'mosaic', radius: 4 },
            { kind: 'solid', color: '#1e2a32' },
          ),
          fc.boolean(),
        ),
        { minLength: 2, maxLength: 12 },
      ),
      (turns) => {
        const kept = new Compositor(heap, plainRasterizer);
        for (const [index, effect, moved] of turns) {
          const area = { x: moved ? 18 : 16, y: 8, width: 48, height: 40 };
          const layer: Layer = { kind: 'region', area, effect };
          const alone = shown(new Compositor(heap, plainRasterizer), pictures[index]!, layer);
          expect(Buffer.compare(shown(kept, pictures[index]!, layer), alone)).toBe(0);
        }
      },
    ),
    { numRuns: 40 },
  );
});

test('a presenter on a colour is the same whether they fill the picture or lie in it with full opacity', () => {
  const key = { footageId: 'f', ...DEFAULT_KEY, color: '#2f9a4b' };
  const frame = solid('#2f9a4b');
  const bytes = frameBytes(heap, frame);
  for (let y = 10; y < 50; y++) bytes.fill(180, y * W + 30, y * W + 66);
  const [u, v] = rgbToYuv(parseColor('#c08a70')).slice(1) as [number, number];
  for (let y = 5; y < 25; y++) {
    bytes.fill(u, W * H + (y * W) / 2 + 15, W * H + (y * W) / 2 + 33);
    bytes.fill(v, (W * H * 5) / 4 + (y * W) / 2 + 15, (W * H * 5) / 4 + (y * W) / 2 + 33);
  }
  const full = draw([video({ key, backdrop: '#e3eef2' })], { c: frame }, '#000000');
  const laid = draw(
    [video({ key, backdrop: '#e3eef2', mask: { shape: 'rounded', radius: 0, feather: 0 } })],
    { c: frame },
    '#000000',
  );
  near(full(2, 2), [0xe3, 0xee, 0xf2]);
  for (let y = 0; y < H; y += 3) for (let x = 0; x < W; x += 3) near(full(x, y), laid(x, y), 2);
});

test('covers hide: as a mosaic in flat blocks, solid in one colour', () => {
  const frame = allocateFrame(heap, W, H);
  frameBytes(heap, frame).set(noisyPlane(W, H * 1.5, 9));
  const cover = (effect: RegionEffect): Layer => ({
    kind: 'region',
    area: { x: 16, y: 16, width: 32, height: 32 },
    effect,
  });
  const blocks = draw([video(), cover({ kind: 'mosaic', radius: 8 })], { c: frame });
  expect(blocks(17, 17)).toEqual(blocks(30, 30));
  expect(blocks(17, 17)).not.toEqual(blocks(33, 17));
  const painted = draw([video(), cover({ kind: 'solid', color: '#1e2a32' })], { c: frame });
  near(painted(17, 17), [0x1e, 0x2a, 0x32]);
  near(painted(47, 47), [0x1e, 0x2a, 0x32]);
});

test('dimming leaves the disc, darkens the rest and drains its colour', () => {
  const at = draw(
    [
      video(),
      {
        kind: 'region',
        area: whole,
        effect: {
          kind: 'dim',
          center: { x: 48, y: 32 },
          inner: 10,
          outer: 16,
          dark: 0.5,
          drained: 1,
          ...{ shape: 'disc', tall: 1, blur: 0 },
        },
      },
    ],
    {
      c: solid('#c08040'),
    },
  );
  near(at(48, 32), [0xc0, 0x80, 0x40]);
  const [r, g, b] = at(5, 5);
  expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThan(4);
  const luma = (0.2126 * 0xc0 + 0.7152 * 0x80 + 0.0722 * 0x40) / 2;
  expect(Math.abs(g - luma)).toBeLessThan(4);
});

test('what stays clear is the same whether the rest is blurred too, and has a view’s shape where asked', () => {
  const striped = solid('#808080');
  const bytes = frameBytes(heap, striped);
  for (let i = 0; i < W * H; i++) bytes[i] = i % 2 ? 200 : 60;
  const dim = (more: object) =>
    draw(
      [
        video(),
        {
          ...{ kind: 'region', area: whole },
          effect: {
            ...{ kind: 'dim', center: { x: 48, y: 32 }, inner: 18, outer: 20 },
            ...{ dark: 0.5, drained: 0, shape: 'disc', tall: 1, blur: 0, ...more },
          },
        } as Layer,
      ],
      { c: striped },
    );
  const contrast = (at: ReturnType<typeof draw>, x: number, y: number) =>
    Math.abs(at(x, y)[1]! - at(x + 1, y)[1]!);
  const [plain, blurred, view] = [dim({}), dim({ blur: 4 }), dim({ shape: 'box', tall: 9 / 16 })];
  for (const [x, y] of [
    [48, 32],
    [40, 26],
  ] as const)
    near(blurred(x, y), plain(x, y), 2);
  expect(contrast(plain, 8, 8)).toBeGreaterThan(40);
  expect(contrast(blurred, 8, 8)).toBeLessThan(10);
  // A view is as wide, and not as high.
  near(view(48, 32), plain(48, 32), 2);
  near(view(33, 32), plain(33, 32), 2);
  expect(view(48, 17)[1]!).toBeLessThan(plain(48, 17)[1]! - 20);
});

describe('shapes', () => {
  test('a squircle lies between a circle and its box, and is the same on all sides', () => {
    const at = draw([video({ mask: { shape: 'squircle', feather: 0 } })], { c: solid('#ffffff') });
    const lit = (x: number, y: number) => at(x, y)[1]! > 128;
    expect(lit(48, 1)).toBe(true);
    expect(lit(1, 1)).toBe(false);
    // On the diagonal of a circle's box, outside the circle.
    expect(lit(11, 7)).toBe(true);
    for (let x = 0; x < W; x += 3)
      for (let y = 0; y < H; y += 3) {
        expect(lit(x, y)).toBe(lit(W - 1 - x, y));
        expect(lit(x, y)).toBe(lit(x, H - 1 - y));
      }
  });

  test('a shadow is dark behind its box and fades around it; what casts it is not seen', () => {
    const box = { x: 30, y: 20, width: 36, height: 24 };
    const mark = {
      ...({ kind: 'outline', shape: 'rectangle', radius: 0, box } as const),
      ...{ fill: '#000000', stroke: null, soft: 8 },
    };
    const layer = { kind: 'drawing', mark, opacity: 0.5, blend: 'normal' } as const;
    const at = draw([layer], {}, '#ffffff');
    expect(at(48, 32)[0]).toBeLessThan(140);
    expect(at(26, 32)[0]).toBeGreaterThan(at(32, 32)[0]!);
    near(at(4, 4), [255, 255, 255], 3);
    near(at(48, 62), [255, 255, 255], 3);
  });
});

test('exposure doubles light, saturation takes colours away, warmth leaves black and reddens white', () => {
  const shown = (color: string, change: Partial<typeof UNADJUSTED>) =>
    draw([video({ adjust: { ...UNADJUSTED, ...change } })], { c: solid(color) })(30, 20);
  const linear = (code: number) =>
    code <= 0.081 * 255 ? code / 255 / 4.5 : ((code / 255 + 0.099) / 1.099) ** (1 / 0.45);
  const [before, after] = [linear(0x60), linear(shown('#606060', { exposure: 1 })[0]!)];
  expect(after / before).toBeGreaterThan(1.7);
  expect(after / before).toBeLessThan(2.3);
  const grey = shown('#a05030', { saturation: 0 });
  expect(Math.max(...grey) - Math.min(...grey)).toBeLessThanOrEqual(3);
  const warm = shown('#c0c0c0', { temperature: 1 });
  expect(warm[0]).toBeGreaterThan(warm[2]! + 30);
  near(shown('#000000', { temperature: 1 }), [0, 0, 0], 3);
});
