import { createCanvas } from '@napi-rs/canvas';
import { drawingNeeds } from '@/compositor/rasterizer';
import { planFrame } from '@/core/frame/plan-frame';
import { frameDuration, secondsToTicks } from '@/core/time/ticks';
import { loadKernels, nodeRasterizer } from '../media/node-host';
import { FrameRenderer, type RenderTask } from './render-frames';

/** One picture of a project at a time in seconds, from the originals, as PNG bytes. */
export async function renderStill(task: RenderTask, seconds: number): Promise<Buffer> {
  const heap = await loadKernels();
  const rasterizer = await nodeRasterizer(task.originals);
  using renderer = new FrameRenderer(task, heap, rasterizer);
  const frame = frameDuration(task.rate);
  const time = Math.floor((secondsToTicks(seconds) + frame * 1e-6) / frame) * frame;
  const plan = planFrame(task.project, task.sources, time, task.output);
  await rasterizer.ready(drawingNeeds(plan.layers));
  const picture = renderer.render(0, plan);
  const { width, height } = task.output;
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  const image = context.createImageData(width, height);
  using rgba = heap.borrow(width * height * 4);
  heap.exports.planarToRgba(picture.y.at, picture.u.at, picture.v.at, width, height, rgba.at);
  image.data.set(heap.bytes(rgba.at, width * height * 4));
  context.putImageData(image, 0, 0);
  return canvas.toBuffer('image/png');
}
