import { rename, rm } from 'node:fs/promises';
import type { ExportSettings } from '@/contract/exports';
import type { Format, Quality } from '@/core/project/export-formats';
import type { Size } from '@/core/scale/rect';
import { framesPerSecond, type FrameRate } from '@/core/time/ticks';
import { COLOR_TAGS } from '../media/filters';
import { MediaProcess } from '../media/process';
import { partOfFile } from '../media/whole-file';
import { problem } from '../problem';

type Coding = Pick<ExportSettings, 'format' | 'frameRate' | 'quality' | 'bitRate'>;

/**
 * Constant rate factors for a quality: text stays clean down to `small`. The scales of the three
 * coders differ.
 */
const RATE_FACTOR: Record<'h264' | 'vp9' | 'av1', Record<Quality, number>> = {
  h264: { small: 26, good: 20, high: 16 },
  vp9: { small: 37, good: 30, high: 24 },
  av1: { small: 42, good: 34, high: 26 },
};

const KEY_SECONDS = 2;

/** Rate of the picture: constant quality, or a mean that no second passes by far. */
function rateOptions(factor: number, bitRate: number | null): string[] {
  if (bitRate === null) return ['-crf', String(factor)];
  const kbit = Math.round(bitRate * 1000);
  return ['-b:v', `${kbit}k`, '-maxrate', `${Math.round(kbit * 1.5)}k`, '-bufsize', `${kbit * 2}k`];
}

/**
 * H.264 for screens: colours are quantised finer than the encoder would for camera pictures, since
 * small coloured text lives in chroma; what is fine and steady isn't given up for what moves.
 */
const h264 = ({ quality, bitRate }: Coding, threads: number): string[] => [
  '-c:v',
  'libx264',
  '-preset',
  'veryfast',
  ...rateOptions(RATE_FACTOR.h264[quality], bitRate),
  '-x264-params',
  'chroma-qp-offset=-3:deblock=-1,-1',
  ...(threads ? ['-threads', String(threads)] : []),
];

const vp9 = ({ quality, bitRate }: Coding, threads: number): string[] => [
  '-c:v',
  'libvpx-vp9',
  '-deadline',
  'good',
  '-cpu-used',
  '5',
  '-row-mt',
  '1',
  '-tune-content',
  'screen',
  ...(bitRate === null
    ? ['-b:v', '0', '-crf', String(RATE_FACTOR.vp9[quality])]
    : rateOptions(0, bitRate)),
  ...(threads ? ['-threads', String(threads)] : []),
];

const av1 = ({ quality, bitRate }: Coding, threads: number): string[] => [
  '-c:v',
  'libsvtav1',
  '-preset',
  '10',
  ...(bitRate === null
    ? ['-crf', String(RATE_FACTOR.av1[quality])]
    : ['-b:v', `${Math.round(bitRate * 1000)}k`]),
  '-svtav1-params',
  `scm=1${threads ? `:lp=${threads}` : ''}`,
];

/** For pictures that are coded once more afterwards: nothing is lost, and it is quick. */
const lossless = (): string[] => ['-c:v', 'libx264', '-preset', 'ultrafast', '-qp', '0'];

const CODERS: Partial<Record<Format, (coding: Coding, threads: number) => string[]>> = {
  mp4: h264,
  mov: h264,
  webm: vp9,
  av1,
  gif: lossless,
};

/**
 * Whether the encoder of a format can be told where key frames must be, so that what it writes can
 * be cut there.
 */
export const cutsAnywhere = (format: Format): boolean => format !== 'av1';

/** Frames from one key frame to the next, at most. */
export const keyInterval = (rate: FrameRate): number =>
  Math.round(framesPerSecond(rate) * KEY_SECONDS);

/** Container of a segment by format; segments join only within their own. */
export const segmentContainer = (format: Format): 'mp4' | 'webm' =>
  format === 'webm' || format === 'av1' ? 'webm' : 'mp4';

/**
 * Encoder settings, the same for every segment so that they join without a second encode.
 *
 * @param keyFrames seconds after the start at which a key frame must be, so that a player can jump
 * there at once
 * @param threads of the encoder; 0 lets it choose
 */
export function videoEncoder(
  coding: Coding,
  keyFrames: readonly number[] = [],
  threads = 0,
): string[] {
  return [
    ...CODERS[coding.format]!(coding, threads),
    '-pix_fmt',
    'yuv420p',
    '-g',
    String(keyInterval(coding.frameRate)),
    ...(keyFrames.length
      ? ['-force_key_frames', keyFrames.map((t) => t.toFixed(6)).join(',')]
      : []),
    ...COLOR_TAGS,
  ];
}

/**
 * Encoder settings of the sound. AAC begins with silence of its own, which the container's edit
 * list takes out again.
 */
export function soundEncoder(format: Format): string[] {
  switch (format) {
    case 'webm':
    case 'av1':
      return ['-c:a', 'libopus', '-b:a', '128k'];
    case 'mp3':
      return ['-c:a', 'libmp3lame', '-b:a', '192k'];
    case 'wav':
      return ['-c:a', 'pcm_s16le'];
    default:
      return ['-c:a', 'aac', '-b:a', '160k'];
  }
}

/** Options that choose the file's container. */
export function container(format: Format): string[] {
  switch (format) {
    case 'mp4':
    case 'mov':
      return ['-movflags', '+faststart', '-f', format];
    case 'm4a':
      return ['-movflags', '+faststart', '-f', 'ipod'];
    case 'av1':
      return ['-f', 'webm'];
    default:
      return ['-f', format];
  }
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

/** Input options for the mix on standard input. */
export const SOUND_INPUT = ['-f', 'f32le', '-ar', '48000', '-ac', '2', '-i', 'pipe:0'] as const;

/**
 * Encodes bytes that are written to it into one file, which appears under its name only when it is
 * whole.
 */
export class Encoder {
  private readonly process: MediaProcess;
  private readonly part: string;
  private writing: Promise<void> = Promise.resolve();
  private failed = false;

  constructor(
    args: readonly string[],
    private readonly path: string,
  ) {
    this.part = partOfFile(path);
    this.process = new MediaProcess(
      'ffmpeg',
      ['-v', 'error', '-nostdin', '-y', ...args, this.part],
      ['pipe', 'ignore', 'pipe'],
    );
    // A closed pipe is told by the process's end, with its reason.
    this.process.child.stdin!.on('error', () => (this.failed = true));
  }

  /**
   * Writes a copy of the bytes; waits for the write before, so that at most two are on their way.
   */
  async write(bytes: Uint8Array): Promise<void> {
    const copy = Buffer.from(bytes);
    await this.writing;
    if (this.failed)
      throw (await this.process.ended) ?? problem('encoder-failed', 'it gave no reason');
    this.writing = new Promise((resolve) => this.process.child.stdin!.write(copy, () => resolve()));
  }

  /** Completes the file. */
  async finish(): Promise<void> {
    await this.writing;
    this.process.child.stdin!.end();
    const failure = await this.process.ended;
    if (failure) throw failure;
    await rename(this.part, this.path);
  }

  /** Ends it; what it has written is removed. */
  async kill(): Promise<void> {
    this.process.kill();
    await this.process.ended;
    await rm(this.part, { force: true });
  }
}
