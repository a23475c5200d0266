import type { Compositor } from '@/compositor/compositor';
import { drawingNeeds, type Rasterizer } from '@/compositor/rasterizer';
import type { SourceFrame } from '@/compositor/source-frame';
import { colorOver, instantsOf, measured, worstContrast } from '@/core/callout/beneath';
import { videoLayers, type FramePlan, type VideoLayer } from '@/core/frame/plan';
import { planFrame } from '@/core/frame/plan-frame';
import { yuvToRgb, type Rgb } from '@/core/key/color';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame } from '@/kernels/planar';

/** The picture is looked at so wide, in pixels. */
const WIDTH = 640;
/** Where so much of what lies beneath is hidden, the callout is seen. */
const COVERS = 0.6;
/** From black to white in luma. */
const LUMA = 219;

/** What it takes to compose pictures. */
export interface Composing {
  readonly heap: KernelHeap;
  readonly compositor: Compositor;
  readonly rasterizer: Rasterizer;
  readonly read: (layer: VideoLayer) => Promise<SourceFrame | null>;
}

/** The planes of a plan's picture, as bytes of their own. */
async function pictureOf(
  { heap, compositor, rasterizer, read }: Composing,
  plan: FramePlan,
): Promise<Uint8Array> {
  const frames = new Map<string, SourceFrame>();
  for (const layer of videoLayers(plan.layers)) {
    const frame = await read(layer);
    if (frame) frames.set(layer.clipId, frame);
  }
  await rasterizer.ready(drawingNeeds(plan.layers));
  const { width, height } = plan.size;
  const target = allocateFrame(heap, width, height);
  compositor.compose(plan, (layer) => frames.get(layer.clipId) ?? null, target);
  const bytes = frameBytes(heap, target).slice();
  releaseFrame(heap, target);
  return bytes;
}

/**
 * How much a callout differs from what lies beneath it over all of its time, where it does so least,
 * as a contrast ratio; null for one that needs not be told from it, or that is not seen.
 */
export async function contrastBeneath(
  composing: Composing,
  project: Project,
  sources: Sources,
  id: string,
): Promise<number | null> {
  const callout = project.callouts.find((one) => one.id === id);
  const color = callout && colorOver(callout);
  if (!callout || !color) return null;
  const { width, height, frameRate } = project.canvas;
  const even = (n: number) => Math.max(2, Math.round(n / 2) * 2);
  const size = { width: even(WIDTH), height: even((WIDTH * height) / width) };
  const others = project.callouts.filter((one) => one !== callout);
  const without = { ...project, callouts: others };
  const withIt = { ...project, callouts: [...others, measured(callout)] };
  const beneath: Rgb[] = [];
  for (const time of instantsOf(callout, frameRate)) {
    const bare = planFrame(without, sources, time, size);
    const known = new Set(bare.layers.map((layer) => JSON.stringify(layer)));
    const added = planFrame(withIt, sources, time, size).layers.filter(
      (layer) => layer.kind === 'drawing' && !known.has(JSON.stringify(layer)),
    );
    if (!added.length) continue;
    const alone = (background: string) =>
      pictureOf(composing, { ...bare, background, layers: added });
    const [onBlack, onWhite] = [await alone('#000000'), await alone('#ffffff')];
    const picture = await pictureOf(composing, bare);
    const [full, row] = [size.width * size.height, size.width / 2];
    for (let i = 0; i < full; i++) {
      if (1 - (onWhite[i]! - onBlack[i]!) / LUMA < COVERS) continue;
      const chroma = full + Math.floor(i / size.width / 2) * row + ((i % size.width) >> 1);
      beneath.push(yuvToRgb([picture[i]!, picture[chroma]!, picture[chroma + full / 4]!]));
    }
  }
  return worstContrast(beneath, color);
}
