import { expose } from 'comlink';
import { Compositor, type Effort, type FrameOf } from '@/compositor/compositor';
import { drawingNeeds, type Rasterizer } from '@/compositor/rasterizer';
import type { SourceFrame } from '@/compositor/source-frame';
import { videoLayers, type FramePlan, type VideoLayer } from '@/core/frame/plan';
import { planFrame, type PlanView } from '@/core/frame/plan-frame';
import { formatColor, yuvToRgb } from '@/core/key/color';
import type { MatteGrade } from '@/core/key/grade';
import type { TakeColors } from '@/core/key/match-look';
import { isLaneOn, isPictureLane, lastStarted } from '@/core/project/query';
import type { Size } from '@/core/scale/rect';
import { secondsToTicks, ticksToSeconds, type Ticks } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame, type PlanarFrame } from '@/kernels/planar';
import { ApartReaders, standInAt } from './apart-readers';
import { contrastBeneath } from './beneath';
import { browserRasterizer, loadKernels } from './browser-host';
import { ClipReader } from './clip-reader';
import { colorsAt, gradeKey } from './grade-key';
import { ProjectReceiver, type ProjectNews } from './project-link';

/** Clips that begin this soon are opened while the one before still plays. */
const LOOK_AHEAD = secondsToTicks(0.8);
/** Text that is magnified this soon is rebuilt meanwhile. */
const VIEW_AHEAD = secondsToTicks(1);
const MOST_READERS = 6;
const COLOR_SPACE: VideoColorSpaceInit = {
  primaries: 'bt709',
  transfer: 'bt709',
  matrix: 'bt709',
  fullRange: false,
};

/**
 * Samples whose text is rebuilt for one picture, at some 0.35 µs each: while it plays, and while it
 * rests and is drawn again until nothing is lacking.
 */
const EFFORT: Readonly<Record<'playing' | 'resting', Effort>> = {
  playing: { budget: 16_384, inMotion: true },
  resting: { budget: 65_536, inMotion: false },
};

/** What decides how a picture looks: what is shown again unchanged need not be drawn again. */
interface Shown {
  readonly drawing: string;
  readonly sources: readonly (SourceFrame | null)[];
  readonly effort: Effort;
}

const shownBy = (
  plan: FramePlan,
  videos: readonly VideoLayer[],
  frames: ReadonlyMap<string, SourceFrame>,
  effort: Effort,
): Shown => ({
  // Times differ from frame to frame; what counts is which picture was decoded for them.
  drawing: JSON.stringify(plan, (key, value: unknown) => (key === 'time' ? undefined : value)),
  sources: videos.flatMap((layer) => [
    frames.get(layer.clipId) ?? null,
    frames.get(matteName(layer)) ?? null,
  ]),
  effort,
});

/** What the pictures of a layer's matte are called; those of its recording have the clip's name. */
const matteName = ({ clipId }: VideoLayer): string => `${clipId} matte`;

const isSame = (a: Shown, b: Shown): boolean =>
  a.drawing === b.drawing &&
  a.effort === b.effort &&
  a.sources.length === b.sources.length &&
  a.sources.every((source, i) => source === b.sources[i]);

/** Decodes, composes and shows the Picture, away from the page's main thread. */
export class PictureWorker {
  private heap!: KernelHeap;
  private rasterizer!: Rasterizer;
  private compositor!: Compositor;
  /** Composes what is only measured, and keeps nothing of what is shown. */
  private measuring: Compositor | null = null;
  private canvas!: OffscreenCanvas;
  private readonly known = new ProjectReceiver();
  private target: PlanarFrame | null = null;
  /** What is on screen. */
  private shown: Shown = { drawing: '', sources: [], effort: EFFORT.resting };
  private readonly readers = new Map<string, ClipReader>();
  /** Videos of the picture that was shown last, for the eyedropper. */
  private last: { layer: VideoLayer; frame: PlanarFrame }[] = [];

  async start(canvas: OffscreenCanvas, fontsUrl: string): Promise<void> {
    this.canvas = canvas;
    this.heap = await loadKernels();
    this.rasterizer = await browserRasterizer(fontsUrl);
    this.compositor = new Compositor(this.heap, this.rasterizer);
  }

  /** Takes in what is new of the project. */
  receive(news: ProjectNews): void {
    this.known.receive(news);
    if (!news.sources) return;
    // Another file may come in the place of what is not there for a while, or is prepared anew.
    const { footage, preparing = {} } = news.sources;
    for (const [clipId, reader] of this.readers) {
      const { footageId: id, index, matteId } = reader;
      if (matteId && footage[id]) continue;
      if (footage[id] && (index === null) === !preparing[id]) continue;
      reader.close();
      this.readers.delete(clipId);
    }
  }

  /** Draws the picture at a time; answers whether it will be better when it is drawn again. */
  async show(
    time: Ticks,
    width: number,
    height: number,
    view: PlanView,
    playing: boolean,
  ): Promise<boolean> {
    const { project, sources } = this.known;
    if (!project) return false;
    const plan = planFrame(project, sources, time, { width, height }, view);
    const videos = videoLayers(plan.layers);
    const frames = new Map<string, SourceFrame>();
    await Promise.all(
      videos.map(async (layer) => {
        const { clipId, footageId, time: at } = layer;
        const [frame, matte] = await Promise.all([
          this.read(clipId, footageId, at),
          layer.matteId ? this.readMatte(layer, layer.matteId) : null,
        ]);
        if (frame) frames.set(clipId, frame);
        if (matte) frames.set(matteName(layer), matte);
      }),
    );
    await this.rasterizer.ready(drawingNeeds(plan.layers));
    const effort = playing ? EFFORT.playing : EFFORT.resting;
    const now = shownBy(plan, videos, frames, effort);
    if (!isSame(now, this.shown) || this.compositor.unfinished) {
      const target = this.targetOf(width, height);
      const frameOf: FrameOf = (layer, what) =>
        frames.get(what === 'matte' ? matteName(layer) : layer.clipId) ?? null;
      this.compositor.compose(plan, frameOf, target, effort);
      this.present(target);
      this.shown = now;
      if (playing) this.rebuildAhead(time, { width, height }, frames);
    }
    this.last = videos.flatMap((layer) =>
      frames.has(layer.clipId) ? [{ layer, frame: frames.get(layer.clipId)!.picture }] : [],
    );
    if (playing) this.prepareNext(time);
    this.closeOld(videos);
    return this.compositor.unfinished;
  }

  /**
   * Mean colour of the presenter's recording around a spot of the shown picture, as shares of its
   * size.
   */
  pickColor(x: number, y: number): string | null {
    const found = this.last[this.last.length - 1];
    if (!found || !this.target) return null;
    const { layer, frame } = found;
    const { destination, source, footage } = layer;
    const inside = {
      x: (x * this.target.width - destination.x) / destination.width,
      y: (y * this.target.height - destination.y) / destination.height,
    };
    if (inside.x < 0 || inside.x > 1 || inside.y < 0 || inside.y > 1) return null;
    const fx = ((source.x + inside.x * source.width) / footage.width) * frame.width;
    const fy = ((source.y + inside.y * source.height) / footage.height) * frame.height;
    const bytes = frameBytes(this.heap, frame);
    const sum: [number, number, number] = [0, 0, 0];
    let count = 0;
    for (let dy = -4; dy <= 4; dy += 2)
      for (let dx = -4; dx <= 4; dx += 2) {
        const px = Math.min(frame.width - 1, Math.max(0, Math.round(fx + dx)));
        const py = Math.min(frame.height - 1, Math.max(0, Math.round(fy + dy)));
        const chroma = (py >> 1) * frame.u.width + (px >> 1);
        sum[0] += bytes[py * frame.width + px]!;
        sum[1] += bytes[frame.u.at - frame.y.at + chroma]!;
        sum[2] += bytes[frame.v.at - frame.y.at + chroma]!;
        count++;
      }
    return formatColor(yuvToRgb([sum[0] / count, sum[1] / count, sum[2] / count]));
  }

  /** How much a callout differs from what lies beneath it, where it does so least. */
  async contrastBeneath(id: string): Promise<number | null> {
    const { project, sources } = this.known;
    if (!project) return null;
    const { heap, rasterizer } = this;
    using readers = new ApartReaders(heap, sources);
    const read = (layer: VideoLayer) => readers.read(layer);
    const composing = { heap, compositor: this.measurer(), rasterizer, read };
    return await contrastBeneath(composing, project, sources, id);
  }

  /** Grades the key of the presenter at a time. */
  async gradeKey(time: Ticks): Promise<MatteGrade | null> {
    const { project, sources } = this.known;
    if (!project) return null;
    const { heap } = this;
    using readers = new ApartReaders(heap, sources);
    return await gradeKey({ heap, compositor: this.measurer(), readers, project, sources }, time);
  }

  /** The presenter's colours as recorded, at several times. */
  async colorsAt(times: readonly Ticks[]): Promise<(TakeColors | null)[]> {
    const { project, sources } = this.known;
    if (!project) return times.map(() => null);
    const { heap } = this;
    using readers = new ApartReaders(heap, sources);
    const measuring = { heap, compositor: this.measurer(), readers, project, sources };
    const found: (TakeColors | null)[] = [];
    for (const time of times) found.push(await colorsAt(measuring, time));
    return found;
  }

  private measurer(): Compositor {
    return (this.measuring ??= new Compositor(this.heap, this.rasterizer));
  }

  private present(target: PlanarFrame): void {
    if (this.canvas.width !== target.width || this.canvas.height !== target.height) {
      this.canvas.width = target.width;
      this.canvas.height = target.height;
    }
    const picture = new VideoFrame(frameBytes(this.heap, target), {
      format: 'I420',
      codedWidth: target.width,
      codedHeight: target.height,
      timestamp: 0,
      colorSpace: COLOR_SPACE,
    });
    this.canvas.getContext('2d', { alpha: false })!.drawImage(picture, 0, 0);
    picture.close();
  }

  private targetOf(width: number, height: number): PlanarFrame {
    if (this.target?.width !== width || this.target.height !== height) {
      if (this.target) releaseFrame(this.heap, this.target);
      this.target = allocateFrame(this.heap, width, height);
    }
    return this.target;
  }

  /** The picture of a recording at a time; null where it can't be had, or not yet. */
  private async read(clipId: string, footageId: string, time: Ticks): Promise<SourceFrame | null> {
    const { footage, preparing } = this.known.sources;
    const seconds = ticksToSeconds(time);
    const part = standInAt(footage[footageId], preparing?.[footageId], seconds);
    if (!part) return null;
    let reader = this.readers.get(clipId);
    if (reader?.footageId === footageId && reader.index === part.index) {
      this.readers.delete(clipId);
    } else {
      reader?.close();
      reader = new ClipReader(this.heap, footageId, part.index);
    }
    this.readers.set(clipId, reader);
    return reader.frameAt(part.seconds).catch(() => null);
  }

  /** The picture of a layer's matte at its time. */
  private async readMatte(layer: VideoLayer, matteId: string): Promise<SourceFrame | null> {
    const name = matteName(layer);
    const known = this.readers.get(name);
    const same = known?.matteId === matteId ? known : null;
    if (!same) known?.close();
    const reader = same ?? new ClipReader(this.heap, layer.footageId, null, matteId);
    this.readers.delete(name);
    this.readers.set(name, reader);
    return reader.frameAt(ticksToSeconds(layer.time)).catch(() => null);
  }

  /** Rebuilds text that the view will have come closer to in a moment, as far as there is time. */
  private rebuildAhead(time: Ticks, size: Size, frames: ReadonlyMap<string, SourceFrame>): void {
    const { project, sources } = this.known;
    const plan = planFrame(project!, sources, time + VIEW_AHEAD, size);
    this.compositor.prepare(plan, (layer) => frames.get(layer.clipId) ?? null);
  }

  private prepareNext(time: Ticks): void {
    for (const lane of this.known.project!.lanes) {
      if (!isLaneOn(this.known.project!, lane) || !isPictureLane(lane)) continue;
      const next = lane.clips[lastStarted(lane, time) + 1];
      if (next && next.start - time < LOOK_AHEAD && !this.readers.has(next.id))
        void this.read(next.id, next.footageId, next.source);
    }
  }

  private closeOld(used: readonly VideoLayer[]): void {
    for (const [clipId, reader] of this.readers) {
      if (this.readers.size <= MOST_READERS) return;
      if (used.some((layer) => layer.clipId === clipId || matteName(layer) === clipId)) continue;
      reader.close();
      this.readers.delete(clipId);
    }
  }
}

expose(new PictureWorker());
