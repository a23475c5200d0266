import { open } from 'node:fs/promises';
import type { MediaFacts } from '@/contract/footage';
import { framesPerSecond, frameStart, secondsToTicks } from '@/core/time/ticks';
import { limit } from '../limits';
import { Problem, problem } from '../problem';
import { timingOf, type Timing } from './frame-times';
import { GUARDED_INPUT, runMedia } from './process';

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
const LEAST_SIDE = 2;
const LARGEST_SIDE = 8192;
const SAMPLE_RATES = { least: 4000, most: 384_000 };

/**
 * Finds out what a file is. Every packet of the picture is looked at (not decoded), since headers
 * are often wrong: browsers write none for length and rate, and a cut-off copy claims its full
 * length.
 *
 * @throws Problem with a sentence for anything that can't be used
 */
export async function probeMedia(path: string, signal?: AbortSignal): Promise<Probed> {
  const seconds = limit('probeSeconds');
  const output = await runMedia(
    'ffprobe',
    [
      ...['-v', 'error', ...GUARDED_INPUT, '-show_format', '-show_streams'],
      ...['-of', 'json', '-i', path],
    ],
    { signal, seconds, most: 8 << 20 },
  ).catch(async (error: unknown) => {
    // A text file named .mp4 fails like a recording without its index; its first bytes tell the two
    // apart.
    const notMedia =
      error instanceof Problem && error.status < 500 && !(await beginsLikeMedia(path));
    throw notMedia ? problem('not-media') : error;
  });
  const { streams = [], format = {} } = JSON.parse(output.toString()) as {
    streams?: ProbeStream[];
    format?: { duration?: string; start_time?: string; format_name?: string };
  };
  const video = streams.find(
    (s) => s.codec_type === 'video' && !s.disposition?.attached_pic && s.width && s.height,
  );
  const audio = streams.find((s) => s.codec_type === 'audio');
  checkStreams(video, audio);
  const notes: string[] = [];
  const still = !!video && STILL_FORMATS.test(format.format_name ?? '');
  // Some containers count their length from zero, wherever the recording begins.
  const begins = Math.max(0, Number(format.start_time) || 0);
  const said = Number(format.duration ?? audio?.duration) - begins;
  const timing = video && !still ? await scanPackets(path, rateOf(video), seconds, signal) : null;
  if (timing && timing.count === 0) throw problem('media-no-picture');
  const duration = timing
    ? timing.duration
    : still
      ? 0
      : Number.isFinite(said) && said > 0
        ? said
        : await audioLength(path, seconds, signal);
  if (!still && !(duration > 0)) throw problem('media-no-length');
  if (duration > limit('hours') * 3600) throw problem('media-too-long', limit('hours'));
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
      // Containers round times; a steady recording lasts a whole number of its frames, or its last
      // one would be lost when placed.
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
      ...(timing ? { frames: timing.count } : {}),
      convertColor: video ? conversionOf(video) : null,
    },
  };
}

/**
 * Whether a file that can't be opened at least begins like a recording: an MP4 box, or the magic
 * numbers of the other kinds.
 */
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
  const full = video.color_range === 'pc' || video.pix_fmt?.startsWith('yuvj');
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

/** The rate that a stream says it has, in frames a second; null when it says none that can be. */
function rateOf({ avg_frame_rate, r_frame_rate }: ProbeStream): number | null {
  for (const text of [avg_frame_rate, r_frame_rate]) {
    const [num, den] = (text ?? '').split('/').map(Number);
    const rate = num! / (den ?? 1);
    if (rate >= 1 && rate <= 240) return rate;
  }
  return null;
}

/** Refuses what can't be used by what the streams are. */
function checkStreams(video: ProbeStream | undefined, audio: ProbeStream | undefined): void {
  if (!video && !audio) throw problem('media-empty');
  if (video && !VIDEO_CODECS.has(video.codec_name ?? ''))
    throw problem('media-picture-codec', video.codec_name ?? 'something unknown');
  if (audio && !AUDIO_CODECS.test(audio.codec_name ?? ''))
    throw problem('media-sound-codec', audio.codec_name ?? 'something unknown');
  const sides = video ? [video.width!, video.height!] : [];
  if (sides.some((side) => side < LEAST_SIDE || side > LARGEST_SIDE))
    throw problem('media-side', sides[0]!, sides[1]!, LEAST_SIDE, LARGEST_SIDE);
  const sampleRate = Number(audio?.sample_rate);
  if (audio && !(sampleRate >= SAMPLE_RATES.least && sampleRate <= SAMPLE_RATES.most))
    throw problem('media-sample-rate', sampleRate || 0);
}

/**
 * When each packet of the picture is shown, read from the packets themselves. Where they carry no
 * times of showing, those of decoding stand for them, and where there are none at all the rate that
 * the stream says it has.
 */
async function scanPackets(
  path: string,
  said: number | null,
  seconds: number,
  signal?: AbortSignal,
): Promise<Timing> {
  const times: number[] = [];
  let rest = '';
  let lastLength = 0;
  let timeless = 0;
  const most = limit('frames');
  const take = (line: string) => {
    const [pts, dts, length] = line.split(',').map(Number.parseFloat);
    const at = [pts, dts].find(Number.isFinite);
    if (at === undefined) timeless++;
    else times.push(at);
    if (Number.isFinite(length)) lastLength = length!;
    if (times.length + timeless > most) throw problem('media-too-many-frames', most);
  };
  const entries = ['-show_entries', 'packet=pts_time,dts_time,duration_time', '-of', 'csv=p=0'];
  await runMedia(
    'ffprobe',
    ['-v', 'fatal', ...GUARDED_INPUT, '-select_streams', 'V:0', ...entries, '-i', path],
    {
      signal,
      seconds,
      onOutput: (data) => {
        const lines = (rest + data.toString('latin1')).split('\n');
        rest = lines.pop()!;
        for (const line of lines) if (line) take(line);
      },
    },
  );
  if (rest) take(rest);
  if (!times.length && timeless) {
    const frame = 1 / (said ?? 30);
    return timingOf(
      Array.from({ length: timeless }, (_, i) => i * frame),
      frame,
    );
  }
  return timingOf(times, lastLength);
}

/** The time at which the last packet of sound begins, in seconds. */
async function audioLength(path: string, seconds: number, signal?: AbortSignal): Promise<number> {
  let last = 0;
  let rest = '';
  const entries = ['-show_entries', 'packet=pts_time', '-of', 'csv=p=0'];
  await runMedia(
    'ffprobe',
    ['-v', 'fatal', ...GUARDED_INPUT, '-select_streams', 'a:0', ...entries, '-i', path],
    {
      signal,
      seconds,
      onOutput: (data) => {
        const lines = (rest + data.toString('latin1')).split('\n');
        rest = lines.pop()!;
        for (const line of lines) last = Math.max(last, Number.parseFloat(line) || 0);
      },
    },
  );
  return Math.max(last, Number.parseFloat(rest) || 0);
}
