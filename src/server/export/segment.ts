import { renameSync } from 'node:fs';
import { neededParts } from '@/core/frame/needed';
import { planFrame } from '@/core/frame/plan-frame';
import { frameDuration, type Ticks } from '@/core/time/ticks';
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

/**
 * Renders one segment; its file appears under its name only when it is whole. Waits for decoders and encoder,
 * and so belongs into a worker thread.
 */
export async function renderSegment(
  { task, settings, origin, threads }: SegmentWork,
  { path, first, last, keyFrames }: Segment,
  onFrame: () => void,
): Promise<void> {
  const heap = await loadKernels();
  const frame = frameDuration(settings.frameRate);
  const plans = Array.from({ length: last - first }, (_, i) =>
    planFrame(task.project, task.sources, origin + (first + i) * frame, task.output),
  );
  const renderer = new FrameRenderer(task, heap, await nodeRasterizer(), { parts: neededParts(plans), threads, calm: settings.calm });
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
      encoder.write(frameBytes(heap, renderer.render(first + i, plan)));
      onFrame();
    }
    await encoder.finish();
    renameSync(part, path);
  } finally {
    encoder.close();
    renderer.close();
  }
}
