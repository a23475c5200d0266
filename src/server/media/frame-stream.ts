import type { Readable } from 'node:stream';
import { framesPerSecond, type FrameRate } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame, type PlanarFrame } from '@/kernels/planar';
import { colorFilters, timingFilters } from './filters';
import type { MediaFacts } from './probe';
import { GUARDED_INPUT, MediaProcess, mediaProblem } from './process';

/**
 * Decoded frames of a recording at a steady rate from a time on, at a speed, straight into the
 * kernels' memory; at speed 0 it is one frame. One frame is read ahead while the last one is being used.
 */
export class FrameStream {
  private readonly process: MediaProcess;
  private readonly out: Readable;
  private current: PlanarFrame;
  private ahead: PlanarFrame;
  private reading: Promise<boolean>;
  private rest: Buffer | null = null;
  private started = false;

  constructor(
    private readonly heap: KernelHeap,
    private readonly path: string,
    facts: MediaFacts,
    startSeconds: number,
    rate: FrameRate,
    speed = 1,
    threads = 0,
  ) {
    this.current = allocateFrame(heap, facts.width, facts.height);
    this.ahead = allocateFrame(heap, facts.width, facts.height);
    const still = facts.kind === 'image';
    const filters = still ? colorFilters(facts) : [...timingFilters(startSeconds, rate, speed || 1), ...colorFilters(facts)];
    // Seeking goes to the key frame before; the timing filter drops what comes too early but
    // keeps the frame that is still showing at the start.
    const seek =
      still || startSeconds <= 0 ? [] : ['-ss', Math.max(0, startSeconds - 1 / framesPerSecond(rate)).toFixed(6), '-noaccurate_seek'];
    this.process = new MediaProcess(
      'ffmpeg',
      [
        '-v',
        'error',
        '-nostdin',
        ...(threads ? ['-threads', String(threads)] : []),
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
        '-f',
        'rawvideo',
        '-pix_fmt',
        'yuv420p',
        'pipe:1',
      ],
      ['ignore', 'pipe', 'pipe'],
    );
    this.out = this.process.child.stdout!;
    this.reading = this.fill(this.ahead);
  }

  /**
   * The next frame; valid until the call after. Beyond the recording's end its last frame stays.
   * @throws Problem when not a single frame could be decoded
   */
  async next(): Promise<PlanarFrame> {
    if (await this.reading) {
      [this.current, this.ahead] = [this.ahead, this.current];
      this.started = true;
      this.reading = this.fill(this.ahead);
    } else if (!this.started) {
      throw mediaProblem((await this.process.ended) ?? `Invalid data found in ${this.path}`);
    }
    return this.current;
  }

  close(): void {
    this.process.kill();
    this.out.destroy();
    void this.reading
      .catch(() => false)
      .then(() => {
        releaseFrame(this.heap, this.current);
        releaseFrame(this.heap, this.ahead);
      });
  }

  private async fill(frame: PlanarFrame): Promise<boolean> {
    let at = 0;
    while (at < frame.size) {
      const chunk: Buffer | null = this.rest ?? (this.out.read() as Buffer | null);
      this.rest = null;
      if (!chunk) {
        if (this.out.readableEnded || this.out.destroyed) return false;
        await readable(this.out);
        continue;
      }
      const take = Math.min(chunk.length, frame.size - at);
      frameBytes(this.heap, frame).set(take === chunk.length ? chunk : chunk.subarray(0, take), at);
      at += take;
      if (take < chunk.length) this.rest = chunk.subarray(take);
    }
    return true;
  }
}

const readable = (stream: Readable): Promise<void> =>
  new Promise((resolve) => {
    const done = () => {
      stream.off('readable', done).off('end', done).off('close', done).off('error', done);
      resolve();
    };
    stream.on('readable', done).on('end', done).on('close', done).on('error', done);
  });
