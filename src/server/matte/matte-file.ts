import type { Size } from '@/core/scale/rect';
import { framesPerSecond, type FrameRate } from '@/core/time/ticks';
import { PipeWriter } from '../media/pipe';

/** Writes the opacities of pictures as a video. */
export interface MatteWriter extends Disposable {
  /** @param opacity one byte for each pixel */
  write(opacity: Uint8Array): void;
  /** Says that this was all, and waits until the file is whole. */
  finish(): Promise<void>;
}

/** Fine enough that what is clear or opaque stays so. */
const RATE_FACTOR = '12';

/**
 * Begins a video of opacities: its luma is opacity, 0 to 255, its colours are grey. H.264, so that
 * browser and server read it as they read a recording; a key frame every second, to be jumped to.
 */
export function matteWriter(to: string, { width, height }: Size, rate: FrameRate): MatteWriter {
  const writer = new PipeWriter([
    ...['-y', '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-s', `${width}x${height}`],
    ...['-r', `${rate.num}/${rate.den}`, '-i', 'pipe:0'],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', RATE_FACTOR],
    ...['-g', String(Math.max(1, Math.round(framesPerSecond(rate)))), '-threads', '1'],
    ...['-movflags', '+faststart', '-f', 'mp4', to],
  ]);
  const picture = new Uint8Array((width * height * 3) / 2).fill(128);
  return {
    write(opacity) {
      picture.set(opacity);
      writer.write(picture);
    },
    finish: () => writer.finish(),
    [Symbol.dispose]: () => writer.close(),
  };
}
