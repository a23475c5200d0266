import { Compositor } from '@/compositor/compositor';
import { drawingNeeds } from '@/compositor/rasterizer';
import type { SourceFrame } from '@/compositor/source-frame';
import { videoLayers } from '@/core/frame/plan';
import { planFrame } from '@/core/frame/plan-frame';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import type { Size } from '@/core/scale/rect';
import { frameDuration, ticksToSeconds, type Ticks } from '@/core/time/ticks';
import { allocateFrame } from '@/kernels/planar';
import { browserRasterizer, loadKernels } from './browser-host';
import { ClipReader } from './clip-reader';

/*
 * Plays a stretch as the preview does, frame after frame, and tells how long composing took. For
 * the bench, which bundles it.
 */
interface Asked {
  readonly project: Project;
  readonly sources: Sources;
  readonly size: Size;
  readonly start: Ticks;
  readonly count: number;
}

async function time({ project, sources, size, start, count }: Asked): Promise<number[]> {
  const heap = await loadKernels();
  const rasterizer = await browserRasterizer('/fonts');
  const compositor = new Compositor(heap, rasterizer);
  const target = allocateFrame(heap, size.width, size.height);
  const readers = new Map<string, ClipReader>();
  const spent: number[] = [];
  for (let i = 0; i < count; i++) {
    const plan = planFrame(
      project,
      sources,
      start + i * frameDuration(project.canvas.frameRate),
      size,
    );
    const frames = new Map<string, SourceFrame>();
    for (const layer of videoLayers(plan.layers)) {
      const reader = readers.get(layer.clipId) ?? new ClipReader(heap, layer.footageId, null);
      readers.set(layer.clipId, reader);
      const frame = await reader.frameAt(ticksToSeconds(layer.time));
      if (frame) frames.set(layer.clipId, frame);
    }
    await rasterizer.ready(drawingNeeds(plan.layers));
    const began = performance.now();
    compositor.compose(plan, (layer) => frames.get(layer.clipId) ?? null, target);
    spent.push(performance.now() - began);
  }
  for (const reader of readers.values()) reader.close();
  return spent;
}

self.onmessage = ({ data }: MessageEvent<Asked>) =>
  time(data).then(
    (spent) => self.postMessage({ spent }),
    (error: unknown) => self.postMessage({ error: String(error) }),
  );
