import { planFrame } from '@/core/frame/plan-frame';
import { everyPlainLayer, everyVideoLayer, type Layer } from '@/core/frame/plan';
import { leaks, readableShare, type LeakSpot } from '@/core/proof/leaks';
import { mappings, sceneAt, screenShowing, uprightOf, type ScreenView } from '@/core/scene/scene';
import { isWithin, padded, type Rect } from '@/core/scale/rect';
import { same } from '@/core/schema/same';
import { frameDuration } from '@/core/time/ticks';
import type { Luma } from '@/core/vision/luma';
import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';
import { inTiles } from '@/sight/pictures';
import { FrameRenderer, type Original, type RenderTask } from '../export/render-frames';
import { lumaRecording } from '../media/luma-recording';
import { PictureStream } from '../media/picture-stream';
import { loadKernels, nodeRasterizer } from '../media/node-host';
import { hiddenBy } from './covered';
import { isKnown, lookFor, placesShown, type Seen, type SeenView } from './seen';
import { turnedBack } from '@/core/proof/turned-back';

/** An exported file, and what it was made of. */
export interface LeakCheck {
  readonly task: RenderTask;
  /** The export itself. */
  readonly video: Original;
  /** The instant of the timeline at which it begins, in ticks. */
  readonly origin: number;
  readonly frames: number;
}

/** What came of it. */
export interface CheckedCovers {
  readonly spots: readonly LeakSpot[];
  /**
   * The covers that could be held against what they hide: not those that stand on the frame or lie
   * on nothing that could be told again.
   */
  readonly checked: readonly string[];
}

/** The recording alone, without all that lies over it. */
const bareLayers = (layers: readonly Layer[], footageId: string): Layer[] =>
  layers.flatMap((layer): Layer[] => {
    if (layer.kind === 'video') return layer.footageId === footageId ? [layer] : [];
    if (layer.kind === 'turned') {
      const inside = bareLayers(layer.layers, footageId);
      return inside.length ? [{ ...layer, layers: inside }] : [];
    }
    if (layer.kind !== 'mix') return [];
    const [from, to] = [bareLayers(layer.from, footageId), bareLayers(layer.to, footageId)];
    return [{ ...layer, from, to }];
  });

/**
 * The views in which a recording is seen: as the screen, and in lenses over it.
 *
 * @param screen the first of them
 */
const viewsOf = (layers: readonly Layer[], screen: ScreenView): SeenView[] => [
  screen,
  ...everyVideoLayer(layers)
    .filter(({ footageId }) => footageId === screen.footage.id)
    .filter(({ destination }) => !same(destination, screen.placement?.destination))
    .map(({ source, destination }) => {
      const scale = destination.width / source.width;
      const { clip } = screen;
      return { clip, scale, stage: destination, ...mappings(source, destination, scale) };
    }),
];

/** The parts of a picture on which something is done to what lies below, within transitions too. */
const regionsOf = (layers: readonly Layer[]): Rect[] =>
  everyPlainLayer(layers).flatMap((layer) => (layer.kind === 'region' ? [layer.area] : []));

/** The picture in which a turned recording is upright, wherever it stands in a plan. */
const turnedLayers = (layers: readonly Layer[], footageId: string): readonly Layer[] =>
  layers.flatMap((layer) => {
    if (layer.kind === 'turned')
      return everyVideoLayer(layer.layers).some((video) => video.footageId === footageId)
        ? layer.layers
        : [];
    return layer.kind === 'mix'
      ? [...turnedLayers(layer.from, footageId), ...turnedLayers(layer.to, footageId)]
      : [];
  });

/**
 * Compares an exported file with the recordings that it was made of: wherever one of them shows what
 * a cover is to hide, nothing of it may be readable in the export. What is to be hidden is looked for
 * in all pictures of its recording, whatever the cover itself knows of where it went.
 *
 * @param onProgress is told the share that is done, 0 to 1
 */
export async function checkCovers(
  { task, video, origin, frames }: LeakCheck,
  onProgress: (share: number) => void,
): Promise<CheckedCovers> {
  const heap = await loadKernels();
  const { project, sources, originals } = task;
  const all = hiddenBy(project, sources);
  const seen: Seen[] = [];
  for (const [i, hidden] of all.entries()) {
    const original = originals[hidden.footageId];
    if (!original || isKnown(hidden, seen)) continue;
    const found = lookFor(heap, hidden, lumaRecording(original.path, original.facts));
    if (found) seen.push(found);
    onProgress(((i + 1) / all.length) * 0.5);
  }
  const spots: LeakSpot[] = [];
  const checked = [...new Set(seen.map(({ coverId }) => coverId))];
  if (!seen.length) return { spots, checked };
  const { output, rate } = task;
  const frame = frameDuration(rate);
  const size = inTiles(video.facts);
  const at = heap.allocate(size.width * size.height);
  using shown = new PictureStream(video.path, video.facts, { start: 0, rate, luma: size });
  const rasterizer = await nodeRasterizer();
  const renderers = new Map(
    [...new Set(seen.map(({ footageId }) => footageId))].map((id) => [
      id,
      new FrameRenderer(task, heap, rasterizer, { threads: 1 }),
    ]),
  );
  try {
    for (let n = 0; n < frames && shown.read(heap.bytes(at, size.width * size.height)); n++) {
      const time = origin + n * frame;
      const scene = sceneAt(project, sources, time, output);
      const plan = planFrame(project, sources, time, output);
      for (const [footageId, renderer] of renderers) {
        const screen = screenShowing(scene, footageId);
        if (!screen) continue;
        const here = seen.filter((one) => one.footageId === footageId);
        const alone = { ...plan, layers: bareLayers(plan.layers, footageId) };
        const whole = lumaOf(heap, renderer.render(n, alone).y);
        const made: Luma = {
          data: heap.bytes(at, size.width * size.height),
          ...{ width: output.width, height: output.height, stride: size.width },
        };
        // What is seen turned is looked at upright.
        const upright = uprightOf(scene, screen).screen;
        const asSeen = (picture: Luma) =>
          screen.turn ? turnedBack(picture, screen, upright) : picture;
        const [bare, exported] = [asSeen(whole), asSeen(made)];
        const layers = screen.turn ? turnedLayers(plan.layers, footageId) : plan.layers;
        const regions = regionsOf(layers);
        const views = viewsOf(layers, upright);
        for (const one of here)
          for (const rect of views.flatMap((view) => placesShown(one, view, bare, time))) {
            const share = readableShare(bare, exported, rect);
            if (!leaks(share)) continue;
            const covered = regions.some((area) => isWithin(padded(rect, -2), area));
            spots.push({ frame: n, coverId: one.coverId, rect, share, covered });
          }
      }
      onProgress(0.5 + (0.5 * (n + 1)) / frames);
    }
  } finally {
    for (const renderer of renderers.values()) renderer[Symbol.dispose]();
    heap.release(at);
  }
  return { spots, checked };
}

const lumaOf = (heap: KernelHeap, { at, stride, width, height }: Plane): Luma => ({
  data: heap.bytes(at, stride * height),
  ...{ width, height, stride },
});
