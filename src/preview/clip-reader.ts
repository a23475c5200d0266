import { ALL_FORMATS, Input, UrlSource, VideoSampleSink, type VideoSample } from 'mediabunny';
import { matteUrl } from '@/contract/analyses';
import { footageUrl, pieceUrl } from '@/contract/footage';
import { SourceHistory, type SourceFrame } from '@/compositor/source-frame';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame, type PlanarFrame } from '@/kernels/planar';

/** As in the export: a frame counts as there this much before its own time. */
const EARLY = 0.002;
/** Going on decoding is quicker than seeking up to this distance, in seconds. */
const STEP_ON = 0.6;

/** The frames of one stand-in, or of a piece of it, for one clip, decoded in order where possible. */
export class ClipReader {
  private readonly sink: Promise<VideoSampleSink>;
  private iterator: AsyncGenerator<VideoSample, void, unknown> | null = null;
  private shown: VideoSample | null = null;
  private ahead: VideoSample | null = null;
  private readonly history = new SourceHistory();
  /** Memory of the newest picture and of the one before. */
  private pictures: [PlanarFrame | null, PlanarFrame | null] = [null, null];
  private newest: SourceFrame | null = null;
  private newestOf: VideoSample | null = null;
  private queue: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly heap: KernelHeap,
    readonly footageId: string,
    /** The piece of a proxy that is being made; null for the whole. */
    readonly index: number | null,
    /** The matte that is read in the place of the recording; null for that. */
    readonly matteId: string | null = null,
  ) {
    this.sink = openSink(matteId ? matteUrl(matteId) : standInUrl(footageId, index));
    this.sink.catch(() => {});
  }

  /**
   * The frame that shows at a time in seconds of the footage, in the kernels' memory until the
   * second next that differs.
   */
  frameAt(seconds: number): Promise<SourceFrame | null> {
    const work = this.queue.then(() => this.seek(Math.max(0, seconds) + EARLY));
    this.queue = work.catch(() => {});
    return work;
  }

  close(): void {
    this.queue = this.queue.then(() => {
      this.stop();
      for (const picture of this.pictures) if (picture) releaseFrame(this.heap, picture);
      this.pictures = [null, null];
      this.newest = null;
    });
  }

  private async seek(time: number): Promise<SourceFrame | null> {
    const goesOn =
      this.iterator &&
      this.shown &&
      time >= this.shown.timestamp &&
      time - this.shown.timestamp < STEP_ON;
    if (!goesOn) {
      this.stop();
      this.iterator = (await this.sink).samples(Math.max(0, time));
      this.shown = await this.pull();
      this.ahead = await this.pull();
    }
    while (this.ahead && this.ahead.timestamp <= time) {
      this.shown?.close();
      this.shown = this.ahead;
      this.ahead = await this.pull();
    }
    if (this.shown && this.newestOf !== this.shown) {
      const picture = await copyToPlanar(this.heap, this.shown, this.pictures[1]);
      this.pictures = [picture, this.pictures[0]];
      this.newest = this.history.push(picture, null);
      this.newestOf = this.shown;
    }
    return this.newest;
  }

  private async pull(): Promise<VideoSample | null> {
    const next = await this.iterator!.next();
    return next.done ? null : next.value;
  }

  private stop(): void {
    void this.iterator?.return();
    this.iterator = null;
    this.shown?.close();
    this.ahead?.close();
    this.shown = this.ahead = this.newestOf = null;
  }
}

const standInUrl = (footageId: string, index: number | null): string =>
  index === null ? footageUrl(footageId, 'proxy') : pieceUrl(footageId, index);

async function openSink(url: string): Promise<VideoSampleSink> {
  const input = new Input({ source: new UrlSource(url), formats: ALL_FORMATS });
  const track = await input.getPrimaryVideoTrack();
  if (!track) throw new Error('The stand-in of this recording has no picture.');
  return new VideoSampleSink(track);
}

/** Copies a decoded picture into the kernels' memory as 4:2:0 planes. */
async function copyToPlanar(
  heap: KernelHeap,
  sample: VideoSample,
  reuse: PlanarFrame | null,
): Promise<PlanarFrame> {
  const { codedWidth: width, codedHeight: height } = sample;
  let frame = reuse;
  if (!frame || frame.width !== width || frame.height !== height) {
    if (frame) releaseFrame(heap, frame);
    frame = allocateFrame(heap, width, height);
  }
  const { y, u } = frame;
  const rect = { x: 0, y: 0, width, height };
  const bytes = new Uint8Array(frame.size + u.width * u.height);
  if (sample.format === 'I420') {
    const layout = [
      { offset: 0, stride: y.stride },
      { offset: frame.u.at - y.at, stride: u.stride },
      { offset: frame.v.at - y.at, stride: u.stride },
    ];
    await sample.copyTo(bytes, { rect, layout });
  } else if (sample.format === 'NV12') {
    await sample.copyTo(bytes, {
      rect,
      layout: [
        { offset: 0, stride: y.stride },
        { offset: y.stride * height, stride: u.stride * 2 },
      ],
    });
    splitChroma(bytes, width * height, u.width * u.height);
  } else
    throw new Error(`This browser decodes to ${sample.format}, which the preview does not read.`);
  frameBytes(heap, frame).set(bytes.subarray(0, frame.size));
  return frame;
}

/** Two interleaved chroma planes to one after the other. */
function splitChroma(bytes: Uint8Array, at: number, count: number): void {
  const pairs = bytes.slice(at, at + count * 2);
  for (let i = 0; i < count; i++) {
    bytes[at + i] = pairs[i * 2]!;
    bytes[at + count + i] = pairs[i * 2 + 1]!;
  }
}
