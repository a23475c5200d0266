import { renameSync } from 'node:fs';
import { neededParts } from '@/core/frame/needed';
import { planFrame } from '@/core/frame/plan-frame';
import { frameDuration, type Ticks } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { frameBytes } from '@/kernels/planar';
import { loadKernels, nodeRasterizer } from '../media/node-host';
import { PipeWriter } from '../media/pipe';
import { rawInput, segmentContainer, videoEncoder } from './encode';
import { FrameRenderer, type RenderTask } from './render-frames';
import type { ExportSettings } from './settings';

/** A run of output frames that becomes a file of its own. */
export interface Segment {
  readonly path: string;
  readonly first: number;
  /** The frame after its last. */
  readonly last: number;
  /** Seconds after its start at which a key frame must be. */
  readonly keyFrames: readonly number[];
}

export interface SegmentWork {
  readonly task: RenderTask;
  readonly settings: ExportSettings;
  /** Timeline time of output frame 0. */
  readonly origin: Ticks;
  /** Threads of each decoder and of the encoder; 0 lets them choose. */
  readonly threads: number;
}

/** Renders segments, one at a time. Waits for decoders and encoder, and so belongs into a worker thread. */
export class SegmentRenderer {
  private constructor(
    private readonly work: SegmentWork,
    private readonly heap: KernelHeap,
    private readonly renderer: FrameRenderer,
  ) {}

  static async open(work: SegmentWork): Promise<SegmentRenderer> {
    const { task, settings, threads } = work;
    const heap = await loadKernels();
    return new SegmentRenderer(work, heap, new FrameRenderer(task, heap, await nodeRasterizer(), { threads, calm: settings.calm }));
  }

  /** Renders a segment; its file appears under its name only when it is whole. After its neighbour the decoders go on. */
  async render({ path, first, last, keyFrames }: Segment, onFrame: () => void): Promise<void> {
    const { task, settings, origin, threads } = this.work;
    const frame = frameDuration(settings.frameRate);
    const plans = Array.from({ length: last - first }, (_, i) =>
      planFrame(task.project, task.sources, origin + (first + i) * frame, task.output),
    );
    this.renderer.expect(neededParts(plans));
    const part = `${path}.part`;
    const encoder = new PipeWriter([
      '-y',
      ...rawInput(settings, settings.frameRate),
      ...videoEncoder(settings, keyFrames, threads),
      '-f',
      segmentContainer(settings.format),
      part,
    ]);
    try {
      for (const [i, plan] of plans.entries()) {
        encoder.write(frameBytes(this.heap, this.renderer.render(first + i, plan)));
        onFrame();
      }
      await encoder.finish();
      renameSync(part, path);
    } finally {
      encoder.close();
    }
  }

  close(): void {
    this.renderer.close();
  }
}
