import { expect, test, type Page } from '@playwright/test';
import { build } from 'esbuild';
import { join } from 'node:path';
import { Compositor } from '../src/compositor/compositor';
import { drawingNeeds } from '../src/compositor/rasterizer';
import type { SourceFrame } from '../src/compositor/source-frame';
import { layOutText } from '../src/compositor/text-box';
import { videoLayers, type FramePlan, type Layer } from '../src/core/frame/plan';
import { planFrame } from '../src/core/frame/plan-frame';
import { rippleDelete } from '../src/core/edit/ripple';
import { DEFAULT_TRANSITION, setTransition } from '../src/core/edit/transitions';
import type { Project } from '../src/core/project/model';
import { projectDuration } from '../src/core/project/query';
import type { FootageFacts, Sources } from '../src/core/project/sources';
import type { Rect } from '../src/core/scale/rect';
import {
  frameDuration,
  rateFromNumber,
  secondsToTicks,
  snapToFrame,
  ticksToSeconds,
} from '../src/core/time/ticks';
import { allocateFrame, frameBytes } from '../src/kernels/planar';
import { ssim } from '../bench/ssim';
import { FrameStream } from '../src/server/media/frame-stream';
import { loadKernels, nodeRasterizer } from '../src/server/media/node-host';
import { probeMedia } from '../src/server/media/probe';
import { dataFolder, openDocument } from './recording';

const DEMO = 'demo-glaze-firing';
const SIZE = { width: 1280, height: 720 };
const INSTANTS = 30;

/**
 * Composes plans in Node from the same small copies of the recordings that the preview shows; tells
 * of how many layers the text was rebuilt.
 */
async function composeInNode(
  instants: readonly (readonly FramePlan[])[],
): Promise<{ pictures: Buffer[][]; magnified: number }> {
  const heap = await loadKernels();
  const rasterizer = await nodeRasterizer();
  const compositor = new Compositor(heap, rasterizer);
  const pictures: Buffer[][] = [];
  let magnified = 0;
  for (const plans of instants) {
    await rasterizer.ready(drawingNeeds(plans.flatMap((p) => p.layers)));
    const streams: FrameStream[] = [];
    const frames = new Map<string, SourceFrame>();
    for (const layer of videoLayers(plans.flatMap((p) => p.layers))) {
      const path = join(dataFolder(), 'footage', layer.footageId, 'proxy.mp4');
      const { facts } = await probeMedia(path);
      const stream = new FrameStream(heap, path, facts, {
        start: ticksToSeconds(layer.time),
        rate: facts.frameRate ?? rateFromNumber(30),
        speed: 0,
      });
      streams.push(stream);
      const frame = stream.next(false);
      frames.set(layer.clipId, frame);
      const { crisp, footage, source, destination } = layer;
      if (crisp && destination.width > (source.width * frame.picture.width) / footage.width)
        magnified++;
    }
    pictures.push(
      plans.map((plan) => {
        const target = allocateFrame(heap, plan.size.width, plan.size.height);
        compositor.compose(plan, (layer) => frames.get(layer.clipId) ?? null, target);
        const bytes = Buffer.from(frameBytes(heap, target));
        heap.release(target.y.at);
        return bytes;
      }),
    );
    for (const stream of streams) stream.close();
  }
  return { pictures, magnified };
}

/** Composes plans in a worker of a page, as the preview does. */
async function composeInBrowser(
  page: Page,
  instants: readonly (readonly FramePlan[])[],
): Promise<Buffer[][]> {
  const { outputFiles } = await build({
    entryPoints: ['e2e/parity-worker.ts'],
    bundle: true,
    format: 'iife',
    write: false,
    logLevel: 'error',
  });
  await page.route('**/parity-worker.js', (route) =>
    route.fulfill({
      contentType: 'text/javascript',
      headers: { 'cross-origin-embedder-policy': 'require-corp' },
      body: outputFiles[0]!.text,
    }),
  );
  await page.goto('/');
  const answer = await page.evaluate(
    (list) =>
      new Promise<{ pictures?: string[][]; error?: string }>((resolve) => {
        const worker = new Worker('/parity-worker.js');
        worker.onmessage = (event: MessageEvent<{ pictures?: string[][]; error?: string }>) =>
          resolve(event.data);
        worker.onerror = (event) =>
          resolve({ error: event.message || 'The worker could not be loaded.' });
        worker.postMessage(list);
      }),
    instants,
  );
  expect(answer.error).toBeUndefined();
  return answer.pictures!.map((pair) => pair.map((text) => Buffer.from(text, 'base64')));
}

/** What is left of a plan without what is drawn as sprites. */
const withoutOverlays = (layers: readonly Layer[]): Layer[] =>
  layers.flatMap((layer): Layer[] =>
    layer.kind === 'mix'
      ? [{ ...layer, from: withoutOverlays(layer.from), to: withoutOverlays(layer.to) }]
      : layer.kind === 'video' || layer.kind === 'region'
        ? [layer]
        : [],
  );

test('the picture is the same in the browser and on the server: video to the bit, overlays to the eye', async ({
  page,
}) => {
  const { project } = await openDocument(page, DEMO);
  const views = (await (
    await page.request.get(`/api/projects/${DEMO}/footage`)
  ).json()) as (FootageFacts & {
    facts: FootageFacts;
    hasPointer: boolean;
  })[];
  const sources: Sources = {
    footage: Object.fromEntries(
      views.map((v) => [v.id, { ...v.facts, id: v.id, name: v.name, role: v.role }]),
    ),
    pointers: Object.fromEntries(
      await Promise.all(
        views
          .filter((v) => v.hasPointer)
          .map(
            async (v) =>
              [
                v.id,
                await (await page.request.get(`/api/footage/${v.id}/pointer`)).json(),
              ] as const,
          ),
      ),
    ),
  };
  // A join with a dissolve, so that transitions are among the pictures.
  const cut = structuredClone(project) as Project;
  let n = 0;
  rippleDelete(cut, { start: secondsToTicks(30), end: secondsToTicks(34) }, () => `n${n++}`);
  const lane = cut.lanes.find((l) => l.kind === 'screen')!;
  const frame = frameDuration(cut.canvas.frameRate);
  setTransition(
    cut,
    sources,
    lane.clips[1]!.id,
    'start',
    { ...DEFAULT_TRANSITION, duration: secondsToTicks(2) },
    frame,
  );
  const end = projectDuration(cut);
  const times = Array.from({ length: INSTANTS }, (_, i) =>
    snapToFrame(((i + 0.5) * end) / INSTANTS, cut.canvas.frameRate),
  );
  times[12] = secondsToTicks(29.5);
  const full = times.map((time) => planFrame(cut, sources, time, SIZE));
  expect(full.some((p) => p.layers.some((l) => l.kind === 'mix'))).toBe(true);
  const instants = full.map((plan) => [{ ...plan, layers: withoutOverlays(plan.layers) }, plan]);

  const browser = await composeInBrowser(page, instants);
  const { pictures: node, magnified } = await composeInNode(instants);
  expect(magnified).toBeGreaterThan(INSTANTS / 4);
  for (let i = 0; i < INSTANTS; i++) {
    expect({ time: ticksToSeconds(times[i]!), same: browser[i]![0]!.equals(node[i]![0]!) }).toEqual(
      {
        time: ticksToSeconds(times[i]!),
        same: true,
      },
    );
    const likeness = ssim(browser[i]![1]!, node[i]![1]!, SIZE.width, SIZE.height);
    expect(likeness).toBeGreaterThan(0.99);
  }
});

/** A part of the luma of a picture. */
function lumaOf(picture: Buffer, { x, y, width, height }: Rect): Buffer {
  const rows = Array.from({ length: height }, (_, row) => {
    const at = (y + row) * SIZE.width + x;
    return picture.subarray(at, at + width);
  });
  return Buffer.concat(rows);
}

/** First and last column that has ink, of a light box with dark words or the other way round. */
function inkOf(luma: Buffer, width: number): [first: number, last: number] {
  const ground = luma[Math.floor(luma.length / width / 2) * width + 2]!;
  const columns = [...luma.keys()]
    .filter((at) => Math.abs(luma[at]! - ground) > 60)
    .map((at) => at % width);
  return [Math.min(...columns), Math.max(...columns)];
}

test('words of other scripts, from right to left and of both directions, stand alike in the browser and on the server', async ({
  page,
}) => {
  const { project } = await openDocument(page, DEMO);
  const known = (project as Project).callouts.find((callout) => callout.kind === 'text')!;
  const words = [
    'שלום',
    'כבשן Kilnbook (120°) חם\nKiln: כבשן',
    'مرحبا بكم',
    'Печь готова',
    'Ο φούρνος',
    'भट्ठी',
    'เตาเผา',
    '窑炉温度',
    '窯の温度を上げる',
    '가마 온도',
    'Ready ✅ 👩‍🔧',
  ];
  const time = secondsToTicks(20);
  const plans = words.map((text): FramePlan => {
    const spread = { start: 0, end: time * 2, anchor: { to: 'frame' as const } };
    const callout = { ...known, ...spread, text, arrow: false, id: 'words' };
    const own = { ...(project as Project), callouts: [callout], framings: [], pointer: [] };
    const plan = planFrame(own, { footage: {}, pointers: {} }, time, SIZE);
    return { ...plan, layers: plan.layers.filter((layer) => layer.kind === 'drawing') };
  });
  expect(plans.map(({ layers }) => layers.length)).toEqual(words.map(() => 1));
  const [browser] = await composeInBrowser(page, [plans]);
  const {
    pictures: [node],
  } = await composeInNode([plans]);
  const rasterizer = await nodeRasterizer();
  plans.forEach(({ layers: [layer] }, i) => {
    const { mark } = layer as Layer & { readonly kind: 'drawing' };
    if (mark.kind !== 'words') throw new Error('These are words');
    const { x, y, width, height } = layOutText(mark, SIZE, rasterizer);
    const box = {
      ...{ x: Math.ceil(x) + 2, y: Math.ceil(y) + 2 },
      ...{ width: Math.floor(width) - 5, height: Math.floor(height) - 5 },
    };
    const [here, there] = [browser![i]!, node![i]!].map((picture) => lumaOf(picture, box));
    expect(ssim(here!, there!, box.width, box.height)).toBeGreaterThan(0.95);
    const [ours, theirs] = [inkOf(here!, box.width), inkOf(there!, box.width)];
    for (const side of [0, 1] as const)
      expect(Math.abs(ours[side] - theirs[side])).toBeLessThanOrEqual(2);
  });
});

test('words that are turned, outlined, in the shadow and of other weights look alike in the browser and on the server', async ({
  page,
}) => {
  const { project } = await openDocument(page, DEMO);
  const known = (project as Project).callouts.find((callout) => callout.kind === 'text')!;
  const time = secondsToTicks(20);
  const spread = { start: 0, end: time * 2, anchor: { to: 'frame' as const }, id: 'words' };
  const place = {
    tip: { x: 900, y: 500 },
    offset: { dx: -200, dy: -120 },
    text: 'Cone 6\nat 1222 °C',
  };
  const looks: readonly object[] = [
    { pose: { ...known.pose, turn: 25, size: 1.5 } },
    { ground: false, outline: 6, weight: 'bold', pose: { ...known.pose, turn: -8 } },
    { corner: 0.6, shadow: true, align: 'middle', weight: 'regular' },
    { ground: false, shadow: true, align: 'end', arrow: true },
  ];
  const plans = looks.map((look): FramePlan => {
    const callout = { ...known, ...spread, ...place, ...look } as typeof known;
    const own = { ...(project as Project), callouts: [callout], framings: [], pointer: [] };
    const plan = planFrame(own, { footage: {}, pointers: {} }, time, SIZE);
    return { ...plan, layers: plan.layers.filter((layer) => layer.kind === 'drawing') };
  });
  const [browser] = await composeInBrowser(page, [plans]);
  const {
    pictures: [node],
  } = await composeInNode([plans]);
  const all = { x: 0, y: 0, ...SIZE };
  plans.forEach((plan, i) => {
    expect(plan.layers).toHaveLength(1);
    const [here, there] = [browser![i]!, node![i]!].map((picture) => lumaOf(picture, all));
    expect(new Set(here!).size).toBeGreaterThan(20);
    expect(ssim(here!, there!, SIZE.width, SIZE.height)).toBeGreaterThan(0.995);
  });
});
