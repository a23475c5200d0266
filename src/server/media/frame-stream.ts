import { SourceHistory, type SourceFrame } from '@/compositor/source-frame';
import type { Rect } from '@/core/scale/rect';
import { framesPerSecond, type FrameRate } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame, type PlanarFrame } from '@/kernels/planar';
import { colorFilters, timingFilters } from './filters';
import { PipeReader } from './pipe';
import type { MediaFacts } from './probe';
import { GUARDED_INPUT } from './process';

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
}

/** A recursive filter over time that leaves alone what changes by more than some five code values. */
const CALM = 'hqdn3d=luma_spatial=0:chroma_spatial=0:luma_tmp=5:chroma_tmp=5';

/** Arguments for FFmpeg that write raw 4:2:0 pictures of a recording at a steady rate to standard output. */
export function frameArguments(
  path: string,
  facts: MediaFacts,
  { start, rate, speed = 1, part, threads = 0, calm }: StreamOptions,
): string[] {
  const still = facts.kind === 'image';
  const crop = part ? [`crop=${part.width}:${part.height}:${part.x}:${part.y}`] : [];
  const filters = [...(still ? [] : timingFilters(start, rate, speed || 1)), ...colorFilters(facts), ...crop, ...(calm ? [CALM] : [])];
  // Seeking goes to the key frame before; the timing filter drops what comes too early but
  // keeps the frame that is still showing at the start.
  const seek = still || start <= 0 ? [] : ['-ss', Math.max(0, start - 1 / framesPerSecond(rate)).toFixed(6), '-noaccurate_seek'];
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
    '-avioflags',
    'direct',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'yuv420p',
    'pipe:1',
  ];
}

/**
 * Decoded frames of a recording at a steady rate from a time on, at a speed, read straight into the kernels'
 * memory. Reading waits for the decoder, so that this is for worker threads and commands. The frame before stays
 * intact, for comparing with it.
 */
export class FrameStream {
  private readonly reader: PipeReader;
  private readonly history = new SourceHistory();
  private readonly part: Rect | null;
  /** All of the recording's picture, and the part of it that is decoded. */
  readonly all: Rect;
  readonly shown: Rect;
  private current: PlanarFrame;
  private spare: PlanarFrame;
  private newest: SourceFrame | null = null;
  private over = false;

  constructor(
    private readonly heap: KernelHeap,
    private readonly path: string,
    facts: MediaFacts,
    options: StreamOptions,
  ) {
    this.part = options.part ?? null;
    this.all = { x: 0, y: 0, width: facts.width, height: facts.height };
    this.shown = this.part ?? this.all;
    const { width, height } = this.shown;
    this.current = allocateFrame(heap, width, height);
    this.spare = allocateFrame(heap, width, height);
    this.reader = new PipeReader(frameArguments(path, facts, options));
  }

  /**
   * The next frame; valid until the second call after this. Beyond the recording's end its last frame stays.
   * @throws Problem when not a single frame could be decoded
   */
  next(): SourceFrame {
    if (!this.over && this.reader.read(frameBytes(this.heap, this.spare))) {
      [this.current, this.spare] = [this.spare, this.current];
      this.newest = this.history.push(this.current, this.part);
    } else this.over = true;
    if (!this.newest) throw this.reader.whyEmpty(this.path);
    return this.newest;
  }

  close(): void {
    this.reader.close();
    releaseFrame(this.heap, this.current);
    releaseFrame(this.heap, this.spare);
  }
}
