import { Compositor, type FrameOf } from '@/compositor/compositor';
import type { Rasterizer } from '@/compositor/rasterizer';
import type { SourceFrame } from '@/compositor/source-frame';
import type { MediaFacts } from '@/contract/footage';
import { isSolid, videoLayers, type FramePlan, type VideoLayer } from '@/core/frame/plan';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import type { Rect, Size } from '@/core/scale/rect';
import { ticksToSeconds, type FrameRate, type Ticks } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, releaseFrame, type PlanarFrame } from '@/kernels/planar';
import { FrameStream, type StreamFacts, type StreamOptions } from '../media/frame-stream';

/** Where the original of a recording lies, and what it is. */
export interface Original {
  readonly path: string;
  readonly facts: MediaFacts;
  /** Where a still lies as it is drawn over others. */
  readonly still?: string;
  /** Where its mattes lie, by their names. */
  readonly mattes?: Readonly<Record<string, string>>;
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
  source: SourceFrame;
  /** When in the recording its first frame was wanted. */
  readonly time: Ticks;
  /** How the picture before was placed. */
  placed: string;
}

export interface RenderOptions {
  /** For each decoder; 0 lets it choose. */
  readonly threads?: number;
  /** Takes sensor noise out of presenters' recordings. */
  readonly calm?: boolean;
}

/**
 * Decodes the originals and composes consecutive output frames; waits for the decoders. Close it at
 * the end.
 */
export class FrameRenderer implements Disposable {
  private readonly compositor: Compositor;
  private readonly streams = new Map<string, OpenStream>();
  private readonly target: PlanarFrame;
  private wanted: ReadonlyMap<string, Rect> = new Map();

  constructor(
    private readonly task: Pick<RenderTask, 'originals' | 'output' | 'rate' | 'sources'>,
    private readonly heap: KernelHeap,
    rasterizer: Rasterizer,
    private readonly options: RenderOptions = {},
  ) {
    this.compositor = new Compositor(heap, rasterizer);
    this.target = allocateFrame(heap, task.output.width, task.output.height);
  }

  /**
   * Says which part of each clip's footage the pictures to come draw from, by clip id; of a clip
   * that is not there all is. Decoders that give too little, or much too much, will be started
   * anew.
   *
   * @param needed by the next pictures
   * @param wanted by more of those that follow: what decoders that are started give, so that they
   * need not be started soon again
   */
  expect(needed: ReadonlyMap<string, Rect>, wanted: ReadonlyMap<string, Rect> = needed): void {
    this.wanted = wanted;
    for (const [clipId, { stream }] of this.streams)
      if (
        !holds(stream.shown, needed.get(clipId) ?? stream.all) ||
        area(stream.shown) > area(wanted.get(clipId) ?? stream.all) * TOO_MUCH
      ) {
        stream.close();
        this.streams.delete(clipId);
      }
  }

  /**
   * Composes output frame `index`; it is valid until the next one. After a leap decoders are
   * started anew.
   */
  render(index: number, plan: FramePlan): PlanarFrame {
    const videos = videoLayers(plan.layers);
    for (const layer of videos) {
      this.advance(layer, index);
      this.advanceMatte(layer, index);
    }
    this.closeUnused(videos);
    const frameOf: FrameOf = (layer, what) =>
      this.streams.get(what === 'matte' ? matteStream(layer) : layer.clipId)?.source ?? null;
    this.compositor.compose(plan, frameOf, this.target);
    return this.target;
  }

  [Symbol.dispose](): void {
    for (const { stream } of this.streams.values()) stream.close();
    this.streams.clear();
    releaseFrame(this.heap, this.target);
  }

  private advance(layer: VideoLayer, index: number): void {
    const original = this.task.originals[layer.footageId];
    if (!original) return;
    const { calm } = this.options;
    const role = this.task.sources.footage[layer.footageId]?.role;
    this.follow(layer.clipId, layer, index, original, {
      part: this.wanted.get(layer.clipId),
      calm: calm && role === 'presenter',
    });
  }

  /** The matte of a layer goes along with its recording. */
  private advanceMatte(layer: VideoLayer, index: number): void {
    const { matteId, footageId } = layer;
    const path = matteId && this.task.originals[footageId]?.mattes?.[matteId];
    const made = this.task.sources.mattes?.[footageId]?.find(({ id }) => id === matteId);
    if (!path || !made) return;
    const { width, height } = made;
    const facts = { kind: 'video', width, height, convertColor: null } as const;
    this.follow(matteStream(layer), layer, index, { path, facts }, {});
  }

  private follow(
    name: string,
    layer: VideoLayer,
    index: number,
    { path, facts }: { readonly path: string; readonly facts: StreamFacts },
    more: Pick<StreamOptions, 'part' | 'calm'>,
  ): void {
    const open = this.streams.get(name);
    const placed = JSON.stringify([layer.source, layer.destination]);
    const goesOn = layer.speed === 0 ? open?.time === layer.time : open?.next === index;
    if (open && goesOn) {
      // Only what fills a rectangle and stays where it is can be drawn again in part.
      if (layer.speed !== 0)
        open.source = open.stream.next(isSolid(layer) && open.placed === placed);
      open.next = index + 1;
      open.placed = placed;
      return;
    }
    open?.stream.close();
    const stream = new FrameStream(this.heap, path, facts, {
      start: ticksToSeconds(layer.time),
      rate: this.task.rate,
      speed: layer.speed,
      threads: this.options.threads,
      ...more,
    });
    try {
      const source = stream.next(false);
      this.streams.set(name, { stream, next: index + 1, source, time: layer.time, placed });
    } catch (error) {
      this.streams.delete(name);
      stream.close();
      throw error;
    }
  }

  private closeUnused(videos: readonly VideoLayer[]): void {
    const used = new Set(videos.flatMap((layer) => [layer.clipId, matteStream(layer)]));
    for (const [name, { stream }] of this.streams)
      if (!used.has(name)) {
        stream.close();
        this.streams.delete(name);
      }
  }
}

/**
 * Decoding more than so many times of what is wanted is worth a new start, which costs a process
 * and the way from the last key frame, about what carrying the rest to us costs in ten seconds.
 */
const TOO_MUCH = 2;

/** What the stream of a layer's matte is called; that of its recording has the clip's name. */
const matteStream = ({ clipId }: VideoLayer): string => `${clipId} matte`;

const area = ({ width, height }: Rect) => width * height;

/** Whether a rectangle lies within another. */
const holds = (outer: Rect, inner: Rect): boolean =>
  inner.x >= outer.x &&
  inner.y >= outer.y &&
  inner.x + inner.width <= outer.x + outer.width &&
  inner.y + inner.height <= outer.y + outer.height;
