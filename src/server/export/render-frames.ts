import { Compositor } from '@/compositor/compositor';
import type { Rasterizer } from '@/compositor/rasterizer';
import { videoLayers, type VideoLayer } from '@/core/frame/plan';
import { planFrame } from '@/core/frame/plan-frame';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import type { Size } from '@/core/scale/rect';
import { ticksToSeconds, type FrameRate, type Ticks } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, releaseFrame, type PlanarFrame } from '@/kernels/planar';
import { FrameStream } from '../media/frame-stream';
import type { MediaFacts } from '../media/probe';

/** Where the original of a recording lies, and what it is. */
export interface Original {
  readonly path: string;
  readonly facts: MediaFacts;
}

export interface RenderTask {
  readonly project: Project;
  readonly sources: Sources;
  readonly originals: Readonly<Record<string, Original>>;
  readonly output: Size;
  readonly rate: FrameRate;
}

interface OpenStream {
  readonly stream: FrameStream;
  /** Output frame that its next frame belongs to. */
  next: number;
  frame: PlanarFrame | null;
}

/** Composes consecutive output frames from the originals. One for each run of frames; close it at the end. */
export class FrameRenderer {
  private readonly compositor: Compositor;
  private readonly streams = new Map<string, OpenStream>();
  readonly target: PlanarFrame;

  constructor(
    private readonly task: RenderTask,
    private readonly heap: KernelHeap,
    rasterizer: Rasterizer,
  ) {
    this.compositor = new Compositor(heap, rasterizer);
    this.target = allocateFrame(heap, task.output.width, task.output.height);
  }

  /** Composes output frame `index`, shown at timeline time `time`, into `target`. Indices must not go back. */
  async render(index: number, time: Ticks): Promise<PlanarFrame> {
    const { project, sources, output } = this.task;
    const plan = planFrame(project, sources, time, output);
    const videos = videoLayers(plan.layers);
    await Promise.all(videos.map((layer) => this.advance(layer, index)));
    this.closeUnused(videos);
    this.compositor.compose(plan, (layer) => this.streams.get(layer.clipId)?.frame ?? null, this.target);
    return this.target;
  }

  close(): void {
    for (const { stream } of this.streams.values()) stream.close();
    this.streams.clear();
    releaseFrame(this.heap, this.target);
  }

  private async advance(layer: VideoLayer, index: number): Promise<void> {
    const original = this.task.originals[layer.footageId];
    if (!original) return;
    let open = this.streams.get(layer.clipId);
    if (layer.speed === 0 && open) return;
    if (open && open.next !== index) {
      open.stream.close();
      open = undefined;
    }
    if (!open) {
      open = {
        stream: new FrameStream(this.heap, original.path, original.facts, ticksToSeconds(layer.time), this.task.rate, layer.speed),
        next: index,
        frame: null,
      };
      this.streams.set(layer.clipId, open);
    }
    open.frame = await open.stream.next();
    open.next = index + 1;
  }

  private closeUnused(videos: readonly VideoLayer[]): void {
    for (const [clipId, { stream }] of this.streams)
      if (!videos.some((layer) => layer.clipId === clipId)) {
        stream.close();
        this.streams.delete(clipId);
      }
  }
}
