import { Compositor } from '@/compositor/compositor';
import { drawingNeeds } from '@/compositor/rasterizer';
import type { SourceFrame } from '@/compositor/source-frame';
import { videoLayers, type FramePlan } from '@/core/frame/plan';
import { ticksToSeconds } from '@/core/time/ticks';
import { allocateFrame, frameBytes } from '@/kernels/planar';
import { browserRasterizer, loadKernels } from '@/preview/browser-host';
import { ClipReader } from '@/preview/clip-reader';

/*
 * Composes plans in the browser as the preview does, and hands the planes over. Bundled by the
 * test, served by it to a page of the application.
 */

const toBase64 = (bytes: Uint8Array): string => {
  let text = '';
  for (let i = 0; i < bytes.length; i += 8192)
    text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return btoa(text);
};

/** Each member holds plans of one instant, for which the recordings are decoded once. */
self.onmessage = async ({ data: instants }: MessageEvent<FramePlan[][]>) => {
  try {
    const heap = await loadKernels();
    const rasterizer = await browserRasterizer('/fonts');
    const compositor = new Compositor(heap, rasterizer);
    const pictures: string[][] = [];
    for (const plans of instants) {
      await rasterizer.ready(drawingNeeds(plans.flatMap((p) => p.layers)));
      const readers: ClipReader[] = [];
      const frames = new Map<string, SourceFrame>();
      for (const layer of videoLayers(plans.flatMap((p) => p.layers))) {
        const reader = new ClipReader(heap, layer.footageId, null);
        readers.push(reader);
        const frame = await reader.frameAt(ticksToSeconds(layer.time));
        if (frame) frames.set(layer.clipId, frame);
      }
      pictures.push(
        plans.map((plan) => {
          const target = allocateFrame(heap, plan.size.width, plan.size.height);
          compositor.compose(plan, (layer) => frames.get(layer.clipId) ?? null, target);
          const text = toBase64(frameBytes(heap, target));
          heap.release(target.y.at);
          return text;
        }),
      );
      for (const reader of readers) reader.close();
    }
    self.postMessage({ pictures });
  } catch (error) {
    self.postMessage({ error: String(error) });
  }
};
