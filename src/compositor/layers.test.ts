import fc from 'fast-check';
import { DEFAULT_KEY } from '@/core/edit/settings';
import {
  UNADJUSTED,
  type FramePlan,
  type Layer,
  type RegionEffect,
  type VideoLayer,
} from '@/core/frame/plan';
import { parseColor, rgbToYuv, yuvToRgb } from '@/core/key/color';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, type PlanarFrame } from '@/kernels/planar';
import { noisyPlane, testHeap } from '@/kernels/testing';
import { Compositor, type FrameOf } from './compositor';
import type { SourceFrame } from './source-frame';
import { near, plainRasterizer, solidFrame, wholeVideo } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});
const W = 96;
const H = 64;
const whole = { x: 0, y: 0, width: W, height: H };
const video = (more: Partial<VideoLayer> = {}) => wholeVideo(whole, more);
const solid = (color: string) => solidFrame(heap, color, whole);

/** Draws layers, each from the picture of its clip, and answers what colour is where. */
const draw = (layers: Layer[], pictures: Record<string, PlanarFrame>, background = '#000000') =>
  drawn(
    layers,
    ({ clipId }) =>
      pictures[clipId]
        ? { picture: pictures[clipId], part: null, before: null, marks: null }
        : null,
    background,
  );

/** The same with a say in which picture is whose. */
function drawn(layers: Layer[], frameOf: FrameOf, background = '#000000') {
  const plan: FramePlan = { size: { width: W, height: H }, background, layers };
  const target = allocateFrame(heap, W, H);
  new Compositor(heap, plainRasterizer).compose(plan, frameOf, target);
  const bytes = frameBytes(heap, target).slice();
  const quarter = (W * H) / 4;
  return (x: number, y: number) => {
    const chroma = W * H + (y >> 1) * (W / 2) + (x >> 1);
    return yuvToRgb([bytes[y * W + x]!, bytes[chroma]!, bytes[chroma + quarter]!]);
  };
}

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

describe('the key', () => {
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
