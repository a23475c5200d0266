import { access, mkdir, readdir, rm, stat, statfs, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { planSound } from '@/core/audio/mix';
import type { Range } from '@/core/time/ranges';
import { frameDuration, framesPerSecond, snapToFrame, secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { projectDuration } from '@/core/project/query';
import { chaptersOf, type Chapter } from '@/core/words/chapters';
import { frameBytes } from '@/kernels/planar';
import { loadKernels, nodeRasterizer } from '../media/node-host';
import { Problem } from '../problem';
import { Encoder, rawInput, videoEncoder } from './encode';
import { FrameRenderer, type RenderTask } from './render-frames';
import { RATE_FACTOR, type ExportResult, type ExportSettings } from './settings';
import { mixSound } from './sound';

const SEGMENT_SECONDS = 10;
/** Room that must be free before a render starts, in bytes a pixel and frame: far above what the encoder needs. */
const ROOM = 0.02;

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

/**
 * Renders a project to an MP4. Each ten seconds become a file of their own in
 * `folder`; those that are whole are kept, so that a killed export goes on where it was.
 */
export async function exportVideo(
  task: RenderTask,
  settings: ExportSettings,
  folder: string,
  target: string,
  { signal, onProgress }: ExportControl,
): Promise<ExportResult> {
  const started = Date.now();
  await mkdir(folder, { recursive: true });
  const range = exportRange(task, settings);
  const rate = settings.frameRate;
  const frame = frameDuration(rate);
  const frames = Math.max(1, Math.round((range.end - range.start) / frame));
  await checkRoom(folder, frames * settings.width * settings.height);
  const perSegment = Math.round(framesPerSecond(rate) * SEGMENT_SECONDS);
  const segments = Array.from({ length: Math.ceil(frames / perSegment) }, (_, i) => ({
    path: join(folder, `segment-${String(i).padStart(4, '0')}.mp4`),
    first: i * perSegment,
    last: Math.min(frames, (i + 1) * perSegment),
  }));
  const whole = { start: range.start, end: range.start + frames * frame };
  const chapters = chaptersOf(task.project, whole, rate);
  let done = 0;
  const began = Date.now();
  let fresh = 0;
  for (const segment of segments) {
    if (await exists(segment.path)) {
      done = segment.last;
      continue;
    }
    const keyFrames = chapters
      .map((c) => Math.round(c.start / frame))
      .filter((n) => n > segment.first && n < segment.last)
      .map((n) => ticksToSeconds((n - segment.first) * frame));
    await renderSegment(task, settings, { ...segment, keyFrames }, range.start, signal, () => {
      done++;
      fresh++;
      const fps = (fresh * 1000) / Math.max(1, Date.now() - began);
      onProgress((done / frames) * 0.96, `Frame ${done} of ${frames}, ${fps.toFixed(0)} fps`);
    });
  }
  onProgress(0.97, 'Sound and joining');
  await joinSegments(
    task,
    segments.map((s) => ({ path: s.path, seconds: ticksToSeconds((s.last - s.first) * frame) })),
    whole,
    chapters,
    folder,
    target,
    signal,
  );
  const { size } = await stat(target);
  for (const name of await readdir(folder)) if (/^(segment-|list|chapters)/.test(name)) await rm(join(folder, name), { force: true });
  return {
    width: settings.width,
    height: settings.height,
    frames,
    duration: ticksToSeconds(frames * frame),
    wallSeconds: (Date.now() - started) / 1000,
    bytes: size,
  };
}

async function renderSegment(
  task: RenderTask,
  settings: ExportSettings,
  { path, first, last, keyFrames }: { path: string; first: number; last: number; keyFrames: readonly number[] },
  origin: number,
  signal: AbortSignal,
  onFrame: () => void,
): Promise<void> {
  const heap = await loadKernels();
  const renderer = new FrameRenderer(task, heap, await nodeRasterizer());
  const rate = settings.frameRate;
  const encoder = new Encoder([...rawInput(settings, rate), ...videoEncoder(rate, RATE_FACTOR[settings.quality], keyFrames)], path);
  try {
    for (let index = first; index < last; index++) {
      signal.throwIfAborted();
      const picture = await renderer.render(index, origin + index * frameDuration(rate));
      await encoder.write(frameBytes(heap, picture));
      onFrame();
    }
    await encoder.finish();
  } catch (error) {
    encoder.kill();
    throw error;
  } finally {
    renderer.close();
  }
}

async function joinSegments(
  task: RenderTask,
  segments: readonly { path: string; seconds: number }[],
  range: Range,
  chapters: readonly Chapter[],
  folder: string,
  target: string,
  signal: AbortSignal,
): Promise<void> {
  const list = join(folder, 'list.txt');
  const quote = (path: string) => `'${path.replaceAll("'", "'\\''")}'`;
  await writeFile(
    list,
    ['ffconcat version 1.0', ...segments.flatMap((s) => [`file ${quote(s.path)}`, `duration ${s.seconds.toFixed(6)}`])].join('\n') + '\n',
  );
  const names = join(folder, 'chapters.txt');
  if (chapters.length) await writeFile(names, chapterMetadata(chapters));
  const sounds = planSound(task.project, task.sources).length > 0;
  const soundInput = sounds ? ['-f', 'f32le', '-ar', '48000', '-ac', '2', '-i', 'pipe:0'] : [];
  const chapterInput = chapters.length ? ['-f', 'ffmetadata', '-i', names] : [];
  const encoder = new Encoder(
    [
      '-protocol_whitelist',
      'file,pipe',
      '-f',
      'concat',
      '-safe',
      '0',
      '-i',
      list,
      ...soundInput,
      ...chapterInput,
      '-map',
      '0:v',
      ...(sounds ? ['-map', '1:a', '-c:a', 'aac', '-b:a', '160k'] : []),
      ...(chapters.length ? ['-map_chapters', sounds ? '2' : '1'] : []),
      '-c:v',
      'copy',
      '-movflags',
      '+faststart',
    ],
    target,
  );
  try {
    if (sounds) await mixSound(task, range, (bytes) => encoder.write(bytes), signal);
    await encoder.finish();
  } catch (error) {
    encoder.kill();
    throw error;
  }
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
