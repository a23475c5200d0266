import { rename } from 'node:fs/promises';
import type { Size } from '@/core/scale/rect';
import { framesPerSecond, type FrameRate } from '@/core/time/ticks';
import { COLOR_TAGS } from '../media/filters';
import { MediaProcess, mediaProblem } from '../media/process';

/**
 * Encoder settings, the same for every segment so that they join without a second encode.
 *
 * @param keyFrames seconds after the start at which a key frame must be, so that a player can jump there at once
 */
export function videoEncoder(rate: FrameRate, rateFactor: number, keyFrames: readonly number[] = []): string[] {
  const keyEvery = Math.round(framesPerSecond(rate) * 2);
  return [
    '-c:v',
    'libx264',
    '-preset',
    'veryfast',
    '-crf',
    String(rateFactor),
    '-pix_fmt',
    'yuv420p',
    '-g',
    String(keyEvery),
    ...(keyFrames.length ? ['-force_key_frames', keyFrames.map((t) => t.toFixed(6)).join(',')] : []),
    ...COLOR_TAGS,
  ];
}

/** Input options for raw pictures on standard input. */
export const rawInput = ({ width, height }: Size, rate: FrameRate): string[] => [
  '-f',
  'rawvideo',
  '-pix_fmt',
  'yuv420p',
  '-s',
  `${width}x${height}`,
  '-r',
  `${rate.num}/${rate.den}`,
  '-color_range',
  'tv',
  '-colorspace',
  'bt709',
  '-color_primaries',
  'bt709',
  '-color_trc',
  'bt709',
  '-i',
  'pipe:0',
];

/** Encodes raw bytes that are written to it into one file, which appears under its name only when it is whole. */
export class Encoder {
  private readonly process: MediaProcess;
  private readonly part: string;
  private writing: Promise<void> = Promise.resolve();
  private failed = false;

  constructor(
    args: readonly string[],
    private readonly path: string,
  ) {
    this.part = `${path}.part`;
    this.process = new MediaProcess(
      'ffmpeg',
      ['-v', 'error', '-nostdin', '-y', ...args, '-f', 'mp4', this.part],
      ['pipe', 'ignore', 'pipe'],
    );
    // A closed pipe is told by the process's end, with its reason.
    this.process.child.stdin!.on('error', () => (this.failed = true));
  }

  /** Writes a copy of the bytes; waits for the write before, so that at most two are on their way. */
  async write(bytes: Uint8Array): Promise<void> {
    const copy = Buffer.from(bytes);
    await this.writing;
    if (this.failed) throw mediaProblem((await this.process.ended) ?? 'The encoder ended early');
    this.writing = new Promise((resolve) => this.process.child.stdin!.write(copy, () => resolve()));
  }

  /** Completes the file. */
  async finish(): Promise<void> {
    await this.writing;
    this.process.child.stdin!.end();
    const failure = await this.process.ended;
    if (failure) throw mediaProblem(failure);
    await rename(this.part, this.path);
  }

  kill(): void {
    this.process.kill();
  }
}
