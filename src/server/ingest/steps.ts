import { join } from 'node:path';
import type { MediaFacts } from '@/contract/footage';
import { PIECE_SECONDS, thumbCount } from '@/core/project/stand-ins';
import { frameDuration, ticksToSeconds } from '@/core/time/ticks';
import { COLOR_TAGS, colorFilters, timingFilters } from '../media/filters';
import { GUARDED_INPUT, runMedia } from '../media/process';

/**
 * What the preview needs of a recording, made once; all beside the original, which is never
 * altered.
 */
export interface IngestTask {
  readonly folder: string;
  readonly original: string;
  readonly facts: MediaFacts;
  readonly signal: AbortSignal;
  readonly onProgress: (share: number) => void;
}

const PROXY_SIDE = 720;
const KEY_FRAMES = 15;
export const THUMB_HEIGHT = 72;

/** Size of the stand-in: 720 lines at most, even sides. */
export function proxySize({ width, height }: Pick<MediaFacts, 'width' | 'height'>): {
  width: number;
  height: number;
} {
  const scale = Math.min(
    1,
    PROXY_SIDE / Math.min(width, height),
    (PROXY_SIDE * 2) / Math.max(width, height),
  );
  const even = (n: number) => Math.max(2, Math.round((n * scale) / 2) * 2);
  return { width: even(width), height: even(height) };
}

async function encode(
  task: IngestTask,
  args: readonly string[],
  share: [number, number],
): Promise<void> {
  const length = ticksToSeconds(task.facts.duration) || 1;
  await runMedia(
    'ffmpeg',
    [
      '-v',
      'error',
      '-nostdin',
      '-y',
      ...GUARDED_INPUT,
      '-i',
      task.original,
      '-progress',
      'pipe:1',
      ...args,
    ],
    {
      signal: task.signal,
      seconds: 600 + length * 20,
      onOutput: (data) => {
        const done = /out_time_us=(\d+)/.exec(data.toString('latin1'))?.[1];
        if (done)
          task.onProgress(
            share[0] + (share[1] - share[0]) * Math.min(1, Number(done) / 1e6 / length),
          );
      },
    },
  );
}

/**
 * A recording that would repeat each of its pictures so often, and for so many pictures in all,
 * keeps its own times in the proxy: a few pictures over many hours are a small file.
 */
const SPARSE = { times: 20, frames: 18_000 };

/** Whether a steady copy would be nearly all repetition. */
function isSparse({ frames, frameRate, duration }: MediaFacts): boolean {
  if (!frames || !frameRate) return false;
  const steady = duration / frameDuration(frameRate);
  return steady > frames * SPARSE.times + SPARSE.frames;
}

/** A small constant-rate copy of the picture that a browser seeks quickly in. */
export async function makeProxy(task: IngestTask): Promise<void> {
  const { facts } = task;
  const { width, height } = proxySize(facts);
  const scale = `scale=${width}:${height}:flags=lanczos+accurate_rnd`;
  if (facts.kind === 'image') {
    await encode(
      task,
      [
        '-vf',
        [...colorFilters(facts), scale].join(','),
        '-frames:v',
        '1',
        '-c:v',
        'libx264',
        '-crf',
        '14',
        ...COLOR_TAGS,
        join(task.folder, 'proxy.mp4'),
      ],
      [0, 1],
    );
    return;
  }
  const sparse = isSparse(facts);
  const timing = sparse ? [] : timingFilters(0, facts.frameRate!);
  const filters = [...timing, ...colorFilters(facts), scale];
  await encode(
    task,
    [
      '-map',
      '0:V:0',
      '-an',
      '-sn',
      '-vf',
      filters.join(','),
      ...(sparse ? ['-fps_mode', 'passthrough'] : []),
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-crf',
      '21',
      '-g',
      String(KEY_FRAMES),
      '-bf',
      '0',
      ...COLOR_TAGS,
      ...(sparse
        ? ['-movflags', '+faststart', join(task.folder, 'proxy.mp4')]
        : wholeAndPieces(task.folder)),
    ],
    [0.1, 0.93],
  );
}

/** A still that lies over others is no larger than this. */
const STILL_SIDE = 4096;

/**
 * A still as it lies over other pictures: see-through where it is so, upright, in sRGB, and of a size
 * that every host can hold.
 */
export async function makeStill(task: IngestTask): Promise<void> {
  const { width, height } = task.facts;
  const share = Math.min(1, STILL_SIDE / Math.max(width, height));
  const side = (length: number) => Math.max(1, Math.round(length * share));
  const scale =
    share < 1 ? [`scale=${side(width)}:${side(height)}:flags=lanczos+accurate_rnd`] : [];
  const filters = [...scale, 'format=rgba'].join(',');
  await encode(
    task,
    ['-vf', filters, '-frames:v', '1', '-c:v', 'png', join(task.folder, 'still.png')],
    [0, 0.1],
  );
}

/** Output options that write the proxy both whole and in pieces, encoded once. */
function wholeAndPieces(folder: string): string[] {
  // The list of files has signs of its own, and so has the pattern of their names.
  const escaped = (path: string) => path.replace(/[\\'|]/g, '\\$&');
  const pieces = join(folder.replaceAll('%', '%%'), 'proxy-%04d.mp4');
  const segments = `f=segment:segment_time=${PIECE_SECONDS}:reset_timestamps=1`;
  return [
    ...['-force_key_frames', `expr:gte(t,n_forced*${PIECE_SECONDS})`],
    ...['-flags', '+global_header', '-f', 'tee'],
    `[f=mp4:movflags=+faststart]${escaped(join(folder, 'proxy.mp4'))}|` +
      `[${segments}:segment_format=mp4]${escaped(pieces)}`,
  ];
}

/** The sound as the preview plays it. */
export const makeSound = (task: IngestTask): Promise<void> =>
  encode(
    task,
    [
      '-map',
      '0:a:0',
      '-vn',
      '-sn',
      '-af',
      'aresample=48000:async=1000:first_pts=0',
      '-ac',
      '2',
      '-c:a',
      'libopus',
      '-b:a',
      '128k',
      '-f',
      'webm',
      join(task.folder, 'sound.webm'),
    ],
    [0, 0.1],
  );

/** One picture with small views of the recording side by side, evenly spread. */
export async function makeThumbs(task: IngestTask): Promise<number> {
  const { facts } = task;
  const seconds = ticksToSeconds(
    Math.max(facts.duration, frameDuration(facts.frameRate ?? { num: 30, den: 1 })),
  );
  const count = facts.kind === 'image' ? 1 : thumbCount(seconds);
  const width = Math.max(2, Math.round((facts.width * THUMB_HEIGHT) / facts.height / 2) * 2);
  const small = `scale=${width}:${THUMB_HEIGHT}`;
  const filters =
    count === 1
      ? [small]
      : [
          'tpad=stop_mode=clone:stop_duration=4',
          // Each shows the picture that stands where its share of the recording begins.
          `fps=${(count / seconds).toFixed(6)}:round=up`,
          small,
          `tile=${count}x1`,
        ];
  // From the proxy, which is quicker to read and already in the right colours.
  await encode(
    { ...task, original: join(task.folder, 'proxy.mp4') },
    [...['-vf', filters.join(','), '-frames:v', '1', '-q:v', '5'], join(task.folder, 'thumbs.jpg')],
    [0.93, 1],
  );
  return count;
}
