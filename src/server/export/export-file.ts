import { access, mkdir, readdir, rename, rm, stat, statfs, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { planSound } from '@/core/audio/mix';
import type { Range } from '@/core/time/ranges';
import { frameDuration, framesPerSecond, snapToFrame, secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { projectDuration } from '@/core/project/query';
import { chaptersOf, type Chapter } from '@/core/words/chapters';
import { runMedia } from '../media/process';
import { Problem } from '../problem';
import { container, Encoder, segmentContainer, SOUND_INPUT, soundEncoder } from './encode';
import type { RenderTask } from './render-frames';
import type { Segment } from './segment';
import { FORMAT_FACTS } from '@/core/project/export-formats';
import { type ExportResult, type ExportSettings } from './settings';
import { mixSound } from './sound';
import { renderStill } from './still';
import { renderSegments, threadsFor } from './threads';

/** Seconds of a segment, at most and, while there are fewer segments than threads, at least. */
const SEGMENT = { most: 10, least: 2 };
/** Room that must be free before a render starts, in bytes a pixel and frame: far above what the encoder needs. */
const ROOM = 0.02;

/** Bytes of a second of the mix: two channels of 32 bits. */
const SOUND_BYTES = 48000 * 8;

export interface ExportControl {
  readonly signal: AbortSignal;
  readonly onProgress: (share: number, message: string) => void;
}

/** The stretch of the timeline that is exported, on whole frames of the export. */
export function exportRange(task: Pick<RenderTask, 'project'>, settings: ExportSettings): Range {
  const end = projectDuration(task.project);
  const start = settings.range ? snapToFrame(secondsToTicks(settings.range.start), settings.frameRate) : 0;
  const stop = settings.range ? Math.min(secondsToTicks(settings.range.end), end) : end;
  if (stop - start < frameDuration(settings.frameRate) / 2)
    throw new Problem(
      422,
      end
        ? 'The chosen range holds no frame of the project. Choose one within its length.'
        : 'There is nothing to export yet: the timeline is empty.',
    );
  return { start, end: stop };
}

async function checkRoom(folder: string, pixels: number): Promise<void> {
  const { bavail, bsize } = await statfs(folder);
  if (bavail * bsize < pixels * ROOM + (8 << 20))
    throw new Problem(507, 'The disk is full, or nearly so. Free some space, then export again; the project is as it was.');
}

/** A run of frames cut into segments of nearly one length, as many as fill all threads evenly. */
export function segmentsOf(frames: number, perSecond: number, threads: number): { first: number; last: number }[] {
  const needed = Math.ceil(frames / (SEGMENT.most * perSecond));
  const even = Math.ceil(needed / threads) * threads;
  const count = Math.max(needed, Math.min(even, Math.floor(frames / (SEGMENT.least * perSecond))));
  const edge = (i: number) => Math.round((i * frames) / count);
  return Array.from({ length: count }, (_, i) => ({ first: edge(i), last: edge(i + 1) }));
}

/** Renders a project, or a part of it, to a file of the format that the settings name. */
export async function exportFile(
  task: RenderTask,
  settings: ExportSettings,
  folder: string,
  target: string,
  control: ExportControl,
): Promise<ExportResult> {
  const started = Date.now();
  await mkdir(folder, { recursive: true });
  const range = exportRange(task, settings);
  const frame = frameDuration(settings.frameRate);
  const { picture } = FORMAT_FACTS[settings.format];
  const frames = picture === 'video' ? Math.max(1, Math.round((range.end - range.start) / frame)) : 0;
  if (picture === 'video')
    await exportVideo(task, settings, { start: range.start, end: range.start + frames * frame }, frames, folder, target, control);
  else if (picture === 'still') await writeWhole(target, await renderStill(task, ticksToSeconds(range.start)));
  else await exportSound(task, settings, range, target, control);
  const { size } = await stat(target);
  return {
    width: picture ? settings.width : 0,
    height: picture ? settings.height : 0,
    frames: picture === 'still' ? 1 : frames,
    duration: picture === 'still' ? 0 : ticksToSeconds(picture ? frames * frame : range.end - range.start),
    wallSeconds: (Date.now() - started) / 1000,
    bytes: size,
  };
}

async function writeWhole(target: string, bytes: Uint8Array): Promise<void> {
  await writeFile(`${target}.part`, bytes);
  await rename(`${target}.part`, target);
}

async function exportSound(
  task: RenderTask,
  { format }: ExportSettings,
  range: Range,
  target: string,
  control: ExportControl,
): Promise<void> {
  if (!planSound(task.project, task.sources).length)
    throw new Problem(422, 'There is no sound on the timeline. Unmute a lane, or choose a format with a picture.');
  control.onProgress(0, 'Mixing');
  const length = range.end - range.start;
  const encoder = new Encoder([...SOUND_INPUT, ...soundEncoder(format), ...container(format)], target);
  await feedSound(encoder, task, range, control.signal, (share) =>
    control.onProgress(share * 0.98, `${ticksToSeconds(share * length).toFixed(0)} s of ${ticksToSeconds(length).toFixed(0)} s`),
  );
}

/** Mixes into an encoder and completes its file. */
async function feedSound(
  encoder: Encoder,
  task: RenderTask,
  range: Range,
  signal: AbortSignal,
  onShare: (share: number) => void = () => {},
): Promise<void> {
  const all = ticksToSeconds(range.end - range.start) * SOUND_BYTES;
  let written = 0;
  try {
    await mixSound(
      task,
      range,
      (bytes) => {
        written += bytes.length;
        onShare(Math.min(1, written / all));
        return encoder.write(bytes);
      },
      signal,
    );
    await encoder.finish();
  } catch (error) {
    encoder.kill();
    throw error;
  }
}

/**
 * Renders the picture in segments, several at a time, and joins them with the sound. Segments that are whole
 * are kept in `folder`, so that a killed export goes on where it was.
 */
async function exportVideo(
  task: RenderTask,
  settings: ExportSettings,
  whole: Range,
  frames: number,
  folder: string,
  target: string,
  { signal, onProgress }: ExportControl,
): Promise<void> {
  const rate = settings.frameRate;
  const frame = frameDuration(rate);
  await checkRoom(folder, frames * settings.width * settings.height);
  const threads = threadsFor(settings);
  const chapters = chaptersOf(task.project, whole, rate);
  const digits = (n: number) => String(n).padStart(7, '0');
  const segments: Segment[] = segmentsOf(frames, framesPerSecond(rate), threads).map(({ first, last }) => ({
    path: join(folder, `segment-${digits(first)}-${digits(last)}.${segmentContainer(settings.format)}`),
    first,
    last,
    keyFrames: chapters
      .map((c) => Math.round(c.start / frame))
      .filter((n) => n > first && n < last)
      .map((n) => ticksToSeconds((n - first) * frame)),
  }));
  const there = await Promise.all(segments.map((s) => exists(s.path)));
  const kept = segments.reduce((sum, s, i) => sum + (there[i] ? s.last - s.first : 0), 0);
  const began = Date.now();
  // One segment alone may use all processors; several share them.
  const share = Math.min(threads, segments.length) > 1 ? 1 : 0;
  await renderSegments(
    { task, settings, origin: whole.start, threads: share },
    segments.filter((_, i) => !there[i]),
    threads,
    signal,
    (fresh) => {
      const fps = (fresh * 1000) / Math.max(1, Date.now() - began);
      onProgress(((kept + fresh) / frames) * 0.96, `Frame ${kept + fresh} of ${frames}, ${fps.toFixed(0)} fps`);
    },
  );
  onProgress(0.97, settings.format === 'gif' ? 'Choosing colours' : 'Sound and joining');
  const list = join(folder, 'list.txt');
  const quote = (path: string) => `'${path.replaceAll("'", "'\\''")}'`;
  await writeFile(
    list,
    [
      'ffconcat version 1.0',
      ...segments.flatMap((s) => [`file ${quote(s.path)}`, `duration ${ticksToSeconds((s.last - s.first) * frame).toFixed(6)}`]),
    ].join('\n') + '\n',
  );
  if (settings.format === 'gif') await joinToGif(list, folder, target, signal);
  else await joinSegments(task, settings, list, whole, chapters, folder, target, signal);
  for (const name of await readdir(folder))
    if (/^(segment-|list|chapters|palette)/.test(name)) await rm(join(folder, name), { force: true });
}

const listInput = (list: string) => ['-protocol_whitelist', 'file,pipe', '-f', 'concat', '-safe', '0', '-i', list];

/** One palette for the whole, chosen by what changes; two passes, so that memory does not grow with the length. */
async function joinToGif(list: string, folder: string, target: string, signal: AbortSignal): Promise<void> {
  const palette = join(folder, 'palette.png');
  const quiet = ['-v', 'error', '-nostdin', '-y'];
  await runMedia('ffmpeg', [...quiet, ...listInput(list), '-vf', 'palettegen=stats_mode=diff', '-frames:v', '1', '-update', '1', palette], {
    signal,
  });
  await runMedia(
    'ffmpeg',
    [
      ...quiet,
      ...listInput(list),
      '-i',
      palette,
      '-lavfi',
      'paletteuse=dither=bayer:bayer_scale=4:diff_mode=rectangle',
      '-f',
      'gif',
      `${target}.part`,
    ],
    { signal },
  );
  await rename(`${target}.part`, target);
}

async function joinSegments(
  task: RenderTask,
  { format }: ExportSettings,
  list: string,
  range: Range,
  chapters: readonly Chapter[],
  folder: string,
  target: string,
  signal: AbortSignal,
): Promise<void> {
  const names = join(folder, 'chapters.txt');
  if (chapters.length) await writeFile(names, chapterMetadata(chapters));
  const sounds = planSound(task.project, task.sources).length > 0;
  const encoder = new Encoder(
    [
      ...listInput(list),
      ...(sounds ? SOUND_INPUT : []),
      ...(chapters.length ? ['-f', 'ffmetadata', '-i', names] : []),
      '-map',
      '0:v',
      ...(sounds ? ['-map', '1:a', ...soundEncoder(format)] : []),
      ...(chapters.length ? ['-map_chapters', sounds ? '2' : '1'] : []),
      '-c:v',
      'copy',
      ...container(format),
    ],
    target,
  );
  if (sounds) await feedSound(encoder, task, range, signal);
  else await encoder.finish();
}

/** Chapters as FFmpeg reads them; signs that mean something there are escaped. */
const chapterMetadata = (chapters: readonly Chapter[]): string =>
  [
    ';FFMETADATA1',
    ...chapters.map(
      ({ start, end, title }) =>
        `[CHAPTER]\nTIMEBASE=1/1000\nSTART=${Math.round(ticksToSeconds(start) * 1000)}\nEND=${Math.round(ticksToSeconds(end) * 1000)}\ntitle=${title.replace(/[=;#\\\n]/g, '\\$&')}`,
    ),
  ].join('\n') + '\n';

const exists = (path: string) =>
  access(path).then(
    () => true,
    () => false,
  );
