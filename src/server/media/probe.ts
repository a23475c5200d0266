import { open } from 'node:fs/promises';
import type { FootageKind } from '@/core/project/sources';
import {
  framesPerSecond,
  frameStart,
  rateFromNumber,
  secondsToTicks,
  type FrameRate,
  type Ticks,
} from '@/core/time/ticks';
import { Problem } from '../problem';
import { GUARDED_INPUT, NOT_MEDIA, runMedia } from './process';

/** What a file is, as far as the project and the decoder need it. */
export interface MediaFacts {
  readonly kind: FootageKind;
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate | null;
  readonly variableRate: boolean;
  readonly duration: Ticks;
  readonly hasVideo: boolean;
  readonly hasAudio: boolean;
  readonly videoCodec: string | null;
  readonly audioCodec: string | null;
  readonly channels: number;
  readonly sampleRate: number;
  /** Matrix and range that must be converted to BT.709 limited; null when nothing is to be done. */
  readonly convertColor: { readonly matrix: string; readonly range: string } | null;
}

export interface Probed {
  readonly facts: MediaFacts;
  readonly notes: readonly string[];
}

interface ProbeStream {
  codec_type?: string;
  codec_name?: string;
  width?: number;
  height?: number;
  avg_frame_rate?: string;
  r_frame_rate?: string;
  duration?: string;
  channels?: number;
  sample_rate?: string;
  color_space?: string;
  color_range?: string;
  pix_fmt?: string;
  disposition?: { attached_pic?: number };
  side_data_list?: { rotation?: number }[];
}

const VIDEO_CODECS = new Set([
  'h264',
  'hevc',
  'vp8',
  'vp9',
  'av1',
  'mpeg4',
  'mjpeg',
  'prores',
  'png',
  'qtrle',
  'ffv1',
  'huffyuv',
  'utvideo',
  'rawvideo',
  'theora',
  'msmpeg4v3',
  'dnxhd',
  'h263',
  'mpeg2video',
  'flashsv',
  'cinepak',
  'webp',
  'zmbv',
]);
const AUDIO_CODECS = /^(aac|mp3|opus|vorbis|flac|alac|pcm_\w+|adpcm_\w+|ac3|eac3|wmav2|mp2)$/;
const STILL_FORMATS = /(^|,)(png_pipe|jpeg_pipe|webp_pipe|image2)(,|$)/;
const LARGEST_SIDE = 8192;

/**
 * Finds out what a file is. Every packet of the picture is looked at (not decoded), since
 * headers are often wrong: browsers write none for length and rate, and a cut-off copy claims its full length.
 *
 * @throws Problem with a sentence for anything that can't be used
 */
export async function probeMedia(path: string, signal?: AbortSignal): Promise<Probed> {
  const output = await runMedia(
    'ffprobe',
    ['-v', 'error', ...GUARDED_INPUT, '-show_format', '-show_streams', '-of', 'json', '-i', path],
    {
      signal,
      seconds: 120,
    },
  ).catch(async (error: unknown) => {
    // A text file named .mp4 fails like a recording without its index; its first bytes tell the two apart.
    throw (await beginsLikeMedia(path)) ? error : new Problem(422, NOT_MEDIA);
  });
  const { streams = [], format = {} } = JSON.parse(output.toString()) as {
    streams?: ProbeStream[];
    format?: { duration?: string; format_name?: string };
  };
  const video = streams.find(
    (s) => s.codec_type === 'video' && !s.disposition?.attached_pic && s.width && s.height,
  );
  const audio = streams.find((s) => s.codec_type === 'audio');
  if (!video && !audio) throw new Problem(422, 'The file holds neither picture nor sound.');
  if (video && !VIDEO_CODECS.has(video.codec_name ?? ''))
    throw new Problem(
      422,
      `Its picture is coded as ${video.codec_name ?? 'something unknown'}, which Vistum does not read. Save it as H.264, HEVC, VP9 or AV1.`,
    );
  if (audio && !AUDIO_CODECS.test(audio.codec_name ?? ''))
    throw new Problem(
      422,
      `Its sound is coded as ${audio.codec_name ?? 'something unknown'}, which Vistum does not read. Save it as AAC, Opus, MP3, FLAC or WAV.`,
    );
  if (video && Math.max(video.width!, video.height!) > LARGEST_SIDE)
    throw new Problem(
      422,
      `It is ${video.width} by ${video.height} px; the largest side Vistum takes is ${LARGEST_SIDE} px.`,
    );
  const notes: string[] = [];
  const still = !!video && STILL_FORMATS.test(format.format_name ?? '');
  const said = Number(format.duration ?? audio?.duration);
  const timing = video && !still ? await scanPackets(path, signal) : null;
  if (timing && timing.count === 0)
    throw new Problem(
      422,
      'The file announces a picture but holds none. It may be cut off; copy it again.',
    );
  const duration = timing
    ? timing.duration
    : still
      ? 0
      : Number.isFinite(said) && said > 0
        ? said
        : await audioLength(path, signal);
  if (!still && !(duration > 0))
    throw new Problem(422, 'The file has no length: nothing was recorded in it.');
  if (timing && Number.isFinite(said) && said - timing.duration > Math.max(1, said * 0.1))
    notes.push(
      `The file says it lasts ${said.toFixed(1)} s but its picture ends after ${timing.duration.toFixed(1)} s. It may have been cut off; what is there can be used.`,
    );
  if (timing?.variable)
    notes.push(
      'Its frame rate varies, as screen recorders and browsers do. Frames are shown at their own times.',
    );
  if (video && !audio && !still) notes.push('It has no sound.');
  const turned =
    Math.abs(
      Math.round(
        (video?.side_data_list?.find((d) => d.rotation !== undefined)?.rotation ?? 0) / 90,
      ),
    ) %
      2 ===
    1;
  return {
    notes,
    facts: {
      kind: still ? 'image' : video ? 'video' : 'audio',
      width: video ? (turned ? video.height! : video.width!) : 0,
      height: video ? (turned ? video.width! : video.height!) : 0,
      frameRate: timing ? timing.rate : null,
      variableRate: timing?.variable ?? false,
      // Containers round times; a steady recording lasts a whole number of its frames, or its last one would be lost when placed.
      duration:
        timing && !timing.variable
          ? frameStart(
              Math.max(1, Math.round(duration * framesPerSecond(timing.rate))),
              timing.rate,
            )
          : secondsToTicks(duration),
      hasVideo: !!video,
      hasAudio: !!audio,
      videoCodec: video?.codec_name ?? null,
      audioCodec: audio?.codec_name ?? null,
      channels: audio?.channels ?? 0,
      sampleRate: Number(audio?.sample_rate ?? 0),
      convertColor: video ? conversionOf(video) : null,
    },
  };
}

/** Whether a file that can't be opened at least begins like a recording: an MP4 box, or the magic numbers of the other kinds. */
async function beginsLikeMedia(path: string): Promise<boolean> {
  const handle = await open(path).catch(() => null);
  if (!handle) return true;
  const { buffer } = await handle.read(Buffer.alloc(12), 0, 12, 0);
  await handle.close();
  const text = buffer.toString('latin1');
  return (
    /^....(ftyp|moov|mdat|free|wide|skip)/s.test(text) ||
    /^(\x1aE\xdf\xa3|OggS|RIFF|fLaC|ID3|\x89PNG|\xff[\xd8-\xff])/.test(text)
  );
}

/** Untagged video is taken for BT.709 from 720 lines on and for BT.601 below, as players do. */
function conversionOf(video: ProbeStream): MediaFacts['convertColor'] {
  const rgb = /^(rgb|bgr|gbr|argb|abgr|pal8|0rgb|ya|gray)/.test(video.pix_fmt ?? '');
  const full = video.color_range === 'pc' || /^yuvj/.test(video.pix_fmt ?? '');
  const known =
    video.color_space && video.color_space !== 'unknown' && video.color_space !== 'reserved';
  const matrix = known ? video.color_space! : video.height! >= 720 ? 'bt709' : 'smpte170m';
  if (rgb) return { matrix: 'auto', range: 'full' };
  if (matrix === 'bt709' && !full) return null;
  return {
    matrix: matrix === 'bt709' ? 'bt709' : matrix.startsWith('bt2020') ? 'bt2020' : 'bt601',
    range: full ? 'full' : 'limited',
  };
}

interface Timing {
  readonly count: number;
  readonly duration: number;
  readonly rate: FrameRate;
  readonly variable: boolean;
}

const DEFAULT_RATE = 30;

async function scanPackets(path: string, signal?: AbortSignal): Promise<Timing> {
  const times: number[] = [];
  let rest = '';
  let lastLength = 0;
  await runMedia(
    'ffprobe',
    [
      '-v',
      'fatal',
      ...GUARDED_INPUT,
      '-select_streams',
      'V:0',
      '-show_entries',
      'packet=pts_time,duration_time',
      '-of',
      'csv=p=0',
      '-i',
      path,
    ],
    {
      signal,
      onOutput: (text) => {
        const lines = (rest + text).split('\n');
        rest = lines.pop()!;
        for (const line of lines) {
          const [pts, length] = line.split(',').map(Number);
          if (!Number.isFinite(pts)) continue;
          times.push(pts!);
          if (Number.isFinite(length)) lastLength = length!;
        }
      },
    },
  );
  return timingOf(times, lastLength);
}

/** Rate, length and evenness of frames from their times in seconds, in any order. */
export function timingOf(unsorted: readonly number[], lastLength: number): Timing {
  const times = [...unsorted].sort((a, b) => a - b);
  const count = times.length;
  if (count < 2) {
    const length = lastLength > 0 ? lastLength : 1 / DEFAULT_RATE;
    return { count, duration: length, rate: { num: DEFAULT_RATE, den: 1 }, variable: false };
  }
  const gaps = times.slice(1).map((t, i) => t - times[i]!);
  const sorted = [...gaps].sort((a, b) => a - b);
  const median = sorted[sorted.length >> 1]!;
  const span = times[count - 1]! - times[0]!;
  // Containers round times to a millisecond or so; more than that, in more than a few frames, is a varying rate.
  const odd = gaps.filter((gap) => Math.abs(gap - median) > Math.max(0.0025, median * 0.12)).length;
  const variable = odd > Math.max(1, count * 0.02);
  const mean = (count - 1) / span;
  const fps = variable ? steadyRateFor(sorted) : mean;
  return {
    count,
    duration: span + (lastLength > 0 && lastLength < 1 ? lastLength : median),
    rate: rateFromNumber(Math.min(120, Math.max(1, Number.isFinite(fps) ? fps : DEFAULT_RATE))),
    variable,
  };
}

/**
 * The steady rate at which a recording of varying rate loses nothing that can be seen. A still screen gives few frames, so the
 * usual gap says little: the short ones tell how fast it can go.
 */
function steadyRateFor(sortedGaps: readonly number[]): number {
  const fast = 1 / Math.max(1e-3, sortedGaps[Math.floor(sortedGaps.length * 0.1)]!);
  return fast > 55 ? 60 : fast > 45 ? 50 : 30;
}

async function audioLength(path: string, signal?: AbortSignal): Promise<number> {
  let last = 0;
  await runMedia(
    'ffprobe',
    [
      '-v',
      'fatal',
      ...GUARDED_INPUT,
      '-select_streams',
      'a:0',
      '-show_entries',
      'packet=pts_time',
      '-of',
      'csv=p=0',
      '-i',
      path,
    ],
    {
      signal,
      onOutput: (text) => {
        for (const line of text.split('\n')) last = Math.max(last, Number.parseFloat(line) || 0);
      },
    },
  );
  return last;
}
