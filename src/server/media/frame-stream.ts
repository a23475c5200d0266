import { SourceHistory, type SourceFrame } from '@/compositor/source-frame';
import { planesOf, TILE, tilesOf } from '@/compositor/tiles';
import type { MediaFacts } from '@/contract/footage';
import type { Rect, Size } from '@/core/scale/rect';
import { framesPerSecond, type FrameRate } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { frameAtAddress, planarSize, type PlanarFrame } from '@/kernels/planar';
import { colorFilters, timingFilters } from './filters';
import { PipeReader } from './pipe';
import { GUARDED_INPUT } from './process';

/** What of a recording's facts decoding depends on. */
export type StreamFacts = Pick<MediaFacts, 'kind' | 'width' | 'height' | 'convertColor'>;

/** What of a recording is decoded, and how. */
export interface StreamOptions {
  /** Seconds of the recording. */
  readonly start: number;
  readonly rate: FrameRate;
  /** Seconds of the recording for one of the output; 0 for a single frame. */
  readonly speed?: number;
  /** The part that is wanted, on even pixels; all of it when not given. */
  readonly part?: Rect;
  /** Threads of the decoder; 0 lets it choose. */
  readonly threads?: number;
  /** Takes sensor noise out, over time only. */
  readonly calm?: boolean;
  /** Luma only, on a black ground of this size. */
  readonly luma?: Size;
  /** All of it at this size, colour at as many places as luma. */
  readonly small?: Size;
}

/**
 * A recursive filter over time that leaves alone what changes by more than some five code values.
 */
const SENSOR_NOISE = 'hqdn3d=luma_spatial=0:chroma_spatial=0:luma_tmp=5:chroma_tmp=5';

/**
 * Arguments for FFmpeg that write 4:2:0 pictures, or their luma, of a recording at a steady rate to standard
 * output. The muxer `yuv4mpegpipe` takes rows from the decoder's pictures, that of bare pictures
 * (`rawvideo`) copies each of them whole first.
 */
export function frameArguments(
  path: string,
  facts: StreamFacts,
  { start, rate, speed = 1, part, threads = 0, calm, luma, small }: StreamOptions,
  muxer: 'rawvideo' | 'yuv4mpegpipe' = 'yuv4mpegpipe',
): string[] {
  const still = facts.kind === 'image';
  const crop = part ? [`crop=${part.width}:${part.height}:${part.x}:${part.y}`] : [];
  const filters = [
    ...(still ? [] : timingFilters(start, rate, speed || 1)),
    // Conversions of colour cost more than decoding, and hardly change what is looked for in luma.
    ...(luma ? ['format=yuv420p'] : colorFilters(facts)),
    ...crop,
    ...(calm ? [SENSOR_NOISE] : []),
    // A conversion to grey would stretch its range.
    ...(small ? [`scale=${small.width}:${small.height}:flags=area`, 'format=yuv444p'] : []),
    ...(luma ? ['extractplanes=y', `pad=${luma.width}:${luma.height}:0:0`] : []),
  ];
  // Seeking goes to the key frame before; the timing filter drops what comes too early but
  // keeps the frame that is still showing at the start.
  const seek =
    still || start <= 0
      ? []
      : ['-ss', Math.max(0, start - 1 / framesPerSecond(rate)).toFixed(6), '-noaccurate_seek'];
  return [
    ...(threads ? ['-threads', String(threads), '-filter_threads', '1'] : []),
    ...GUARDED_INPUT,
    ...seek,
    '-copyts',
    '-start_at_zero',
    '-i',
    path,
    '-map',
    '0:V:0',
    '-an',
    '-sn',
    '-dn',
    '-vf',
    filters.join(','),
    ...(still || speed === 0 ? ['-frames:v', '1'] : []),
    '-fps_mode',
    'passthrough',
    '-pix_fmt',
    luma ? 'gray' : small ? 'yuv444p' : 'yuv420p',
    ...(muxer === 'rawvideo' ? aheadArguments(luma ?? small ?? facts) : ['-f', muxer]),
    'pipe:1',
  ];
}

/** Bare pictures may wait to be read in so many bytes of the decoder's memory. */
const AHEAD_BYTES = 48e6;
const MOST_AHEAD = 64;

/**
 * Bare pictures, decoded ahead of the one that is read: what looks at them takes long for some and no
 * time for others, while a pipe holds a part of one only.
 */
function aheadArguments({ width, height }: Size): string[] {
  const ahead = Math.min(MOST_AHEAD, Math.max(2, Math.floor(AHEAD_BYTES / (width * height))));
  return ['-c:v', 'rawvideo', '-f', 'fifo', '-fifo_format', 'rawvideo', '-queue_size', `${ahead}`];
}

/**
 * What each picture begins with in a YUV4MPEG2 stream whose pictures have no parameters of their
 * own.
 */
const PICTURE_HEAD = 'FRAME\n'.length;
/** Pictures and rows are read to multiples of this. */
const ALIGN = 64;

/**
 * Decoded frames of a recording at a steady rate from a time on, at a speed, read straight into the
 * kernels' memory. Reading waits for the decoder, so that this is for worker threads and commands.
 * There is one picture, in which only what changes is overwritten: most of a screen recording
 * stands still.
 */
export class FrameStream {
  private readonly reader: PipeReader;
  private readonly history = new SourceHistory();
  private readonly part: Rect | null;
  /** All of the recording's picture, and the part of it that is decoded. */
  readonly all: Rect;
  readonly shown: Rect;
  /** The picture, with room before it for what each begins with. */
  private readonly memory: number;
  private readonly picture: PlanarFrame;
  private readonly marks: number;
  /** Room for a row of tiles, which stays in the processor's cache. */
  private readonly rows: number;
  private newest: SourceFrame | null = null;
  private over = false;

  constructor(
    private readonly heap: KernelHeap,
    path: string,
    facts: StreamFacts,
    options: StreamOptions,
  ) {
    this.part = options.part ?? null;
    this.all = { x: 0, y: 0, width: facts.width, height: facts.height };
    this.shown = this.part ?? this.all;
    const { width, height } = this.shown;
    const { across, down } = tilesOf(this.shown);
    this.memory = heap.allocate(ALIGN + planarSize(width, height));
    this.picture = frameAtAddress(this.memory + ALIGN, width, height);
    this.marks = heap.allocate(across * down);
    this.rows = heap.allocate(ALIGN + width * TILE.height);
    this.reader = new PipeReader(frameArguments(path, facts, options));
  }

  /**
   * The next frame; valid until the next call. Beyond the recording's end its last frame stays.
   *
   * @param compare whether it is of use to know what differs from the frame before
   * @throws Problem when not a single frame could be decoded, `Interrupted` when somebody ended the
   * decoder
   */
  next(compare: boolean): SourceFrame {
    if (this.over) return this.newest!;
    if (!(this.newest || this.reader.skipLine()) || !(compare ? this.take() : this.readWhole())) {
      if (!this.newest) throw this.reader.whyEmpty();
      this.reader.checkEnd();
      this.over = true;
    } else if (compare) this.newest = this.history.push(this.picture, this.part, this.marks);
    else this.newest = this.history.leap(this.picture, this.part);
    return this.newest!;
  }

  /** Reads a picture in the place of the one that was there; false at the end. */
  private readWhole(): boolean {
    return this.reader.read(
      this.heap.bytes(this.picture.y.at - PICTURE_HEAD, PICTURE_HEAD + this.picture.size),
    );
  }

  /** Reads a picture by rows of tiles and takes what differs; false at the end. */
  private take(): boolean {
    const { heap, reader, marks } = this;
    const { across, down } = tilesOf(this.picture);
    heap.bytes(marks, across * down).fill(0);
    const into = this.rows + ALIGN;
    let head = PICTURE_HEAD;
    for (const [{ at, width, height }, by] of planesOf(this.picture))
      for (let top = 0, row = 0; top < height; top += TILE.height / by, row++) {
        const count = Math.min(TILE.height / by, height - top);
        if (!reader.read(heap.bytes(into - head, head + width * count))) return false;
        head = 0;
        heap.exports.takeRows(
          into,
          at + top * width,
          width,
          count,
          TILE.width / by,
          marks + row * across,
        );
      }
    return true;
  }

  close(): void {
    this.reader.close();
    for (const at of [this.memory, this.marks, this.rows]) this.heap.release(at);
  }
}
