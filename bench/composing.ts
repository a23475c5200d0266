import { Compositor } from '@/compositor/compositor';
import { neededParts } from '@/core/frame/needed';
import { planFrame } from '@/core/frame/plan-frame';
import type { Ticks } from '@/core/time/ticks';
import { FrameRenderer, type RenderTask } from '@/server/export/render-frames';
import { loadKernels, nodeRasterizer } from '@/server/media/node-host';
import { costOf } from './measure';

export interface ComposingTimes {
  /** Milliseconds to compose each picture. */
  readonly compose: readonly number[];
  /** Mean milliseconds a picture to plan it, and to read from the decoders. */
  readonly plan: number;
  readonly read: number;
}

/**
 * Renders pictures as an export does, but for the encoder, and tells where this process's own time
 * goes.
 */
export async function timeComposing(
  task: RenderTask,
  times: readonly Ticks[],
): Promise<ComposingTimes> {
  const heap = await loadKernels();
  const began = performance.now();
  const plans = times.map((time) => planFrame(task.project, task.sources, time, task.output));
  const plan = (performance.now() - began) / plans.length;
  const compose: number[] = [];
  const original = Compositor.prototype.compose;
  Compositor.prototype.compose = function (this: Compositor, ...args) {
    const start = performance.now();
    original.apply(this, args);
    compose.push(performance.now() - start);
  };
  using renderer = new FrameRenderer(task, heap, await nodeRasterizer(), { threads: 1 });
  renderer.expect(neededParts(plans));
  try {
    const { own } = await costOf(() => plans.forEach((p, i) => renderer.render(i, p)));
    return {
      compose,
      plan,
      read: (own * 1000 - compose.reduce((a, b) => a + b, 0)) / plans.length,
    };
  } finally {
    Compositor.prototype.compose = original;
  }
}
