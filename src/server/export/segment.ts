import { drawingNeeds, type Rasterizer } from '@/compositor/rasterizer';
import { neededParts } from '@/core/frame/needed';
import { planFrame } from '@/core/frame/plan-frame';
import { frameDuration, framesPerSecond } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { frameBytes } from '@/kernels/planar';
import { loadKernels, nodeRasterizer } from '../media/node-host';
import { processesGone } from '../media/pipe';
import { FrameRenderer } from './render-frames';
import { SegmentEncoder } from './segment-encoder';
import type { Segment, SegmentWork } from './segment-work';

/** How far, and how closely, it is looked ahead for what decoders will be asked. */
const AHEAD = { seconds: 60, step: 1 };

/**
 * Renders segments, one at a time. Waits for decoders and encoder, and so belongs into a worker
 * thread.
 */
export class SegmentRenderer implements Disposable {
  private constructor(
    private readonly work: SegmentWork,
    private readonly heap: KernelHeap,
    private readonly rasterizer: Rasterizer,
    private readonly renderer: FrameRenderer,
    private readonly encoder: SegmentEncoder,
  ) {}

  static async open(work: SegmentWork): Promise<SegmentRenderer> {
    const { task, settings, threads } = work;
    const heap = await loadKernels();
    const rasterizer = await nodeRasterizer(task.originals);
    const renderer = new FrameRenderer(task, heap, rasterizer, {
      threads,
      calm: settings.calm,
    });
    const encoder = new SegmentEncoder(settings, threads);
    return new SegmentRenderer(work, heap, rasterizer, renderer, encoder);
  }

  /**
   * Renders a segment; its file appears under its name only when it is whole, at the latest after
   * `finish`. For its neighbour decoders and encoder go on.
   *
   * @param following other segments in their order, of which some may be asked for next
   */
  async render(
    segment: Segment,
    following: readonly Segment[],
    onFrame: () => void,
  ): Promise<void> {
    const { task, settings, origin } = this.work;
    const { first, last } = segment;
    const frame = frameDuration(settings.frameRate);
    const planned = (n: number) =>
      planFrame(task.project, task.sources, origin + n * frame, task.output);
    const plans = Array.from({ length: last - first }, (_, i) => planned(first + i));
    this.renderer.expect(
      neededParts(plans),
      neededParts([...plans, ...this.ahead(last).map(planned)]),
    );
    await this.rasterizer.ready(drawingNeeds(plans.flatMap(({ layers }) => layers)));
    await this.encoder.begin(segment, following);
    await processesGone();
    for (const [i, plan] of plans.entries()) {
      this.encoder.write(frameBytes(this.heap, this.renderer.render(first + i, plan)));
      onFrame();
    }
  }

  /** Completes the segments that were rendered. */
  finish(): Promise<void> {
    return this.encoder.finish();
  }

  /**
   * Some of the frames that follow, to know which part of a recording will be needed before long.
   */
  private ahead(from: number): number[] {
    const perSecond = framesPerSecond(this.work.settings.frameRate);
    const step = Math.max(1, Math.round(perSecond * AHEAD.step));
    const count = Math.ceil(
      (Math.min(this.work.frames, from + perSecond * AHEAD.seconds) - from) / step,
    );
    return Array.from({ length: Math.max(0, count) }, (_, i) => from + i * step);
  }

  [Symbol.dispose](): void {
    this.encoder.close();
    this.renderer[Symbol.dispose]();
  }
}
