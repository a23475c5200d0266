import { access, mkdir, readdir, rm, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import type { ExportResult, ExportSettings } from '@/contract/exports';
import { projectDuration } from '@/core/project/query';
import type { Range } from '@/core/time/ranges';
import {
  frameDuration,
  framesPerSecond,
  snapToFrame,
  secondsToTicks,
  ticksToSeconds,
} from '@/core/time/ticks';
import { chaptersOf } from '@/core/words/chapters';
import { problem } from '../problem';
import { cutsAnywhere, keyInterval, segmentContainer } from './encode';
import { joinToGif, joinWithSound, listSegments } from './join';
import type { RenderTask } from './render-frames';
import type { Segment } from './segment-work';

import { FORMAT_FACTS } from '@/core/project/export-formats';
import type { ExportControl } from './settings';
import { exportSound, writeSoundPart } from './sound-file';
import { writeStill } from './still-file';
import { renderSegments, threadsFor } from './threads';

/**
 * Seconds of a segment that has an encoder of its own, at most and, while there are fewer segments
 * than threads, at least.
 */
const ALONE = { most: 5, least: 2 };
/**
 * Room that must be free before a render starts, in bytes a pixel and frame: far above what the
 * encoder needs.
 */
const ROOM = 0.02;

/** The stretch of the timeline that is exported, on whole frames of the export. */
export function exportRange(task: Pick<RenderTask, 'project'>, settings: ExportSettings): Range {
  const end = projectDuration(task.project);
  const start = settings.range
    ? snapToFrame(secondsToTicks(settings.range.start), settings.frameRate)
    : 0;
  const stop = settings.range ? Math.min(secondsToTicks(settings.range.end), end) : end;
  if (stop - start < frameDuration(settings.frameRate) / 2)
    throw problem(end ? 'range-empty' : 'timeline-empty');
  return { start, end: stop };
}

async function checkRoom(folder: string, pixels: number): Promise<void> {
  const { bavail, bsize } = await statfs(folder);
  if (bavail * bsize < pixels * ROOM + (8 << 20)) throw problem('disk-nearly-full');
}

/**
 * A run of frames cut into segments: from key frame to key frame, or, where an encoder can't cut,
 * into as many of nearly one length as fill all threads evenly.
 */
export function segmentsOf(
  frames: number,
  { format, frameRate }: Pick<ExportSettings, 'format' | 'frameRate'>,
  threads: number,
): { first: number; last: number }[] {
  if (cutsAnywhere(format)) {
    const length = keyInterval(frameRate);
    return Array.from({ length: Math.ceil(frames / length) }, (_, i) => ({
      first: i * length,
      last: Math.min(frames, (i + 1) * length),
    }));
  }
  const perSecond = framesPerSecond(frameRate);
  const needed = Math.ceil(frames / (ALONE.most * perSecond));
  const even = Math.ceil(needed / threads) * threads;
  const count = Math.max(needed, Math.min(even, Math.floor(frames / (ALONE.least * perSecond))));
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
  const frames =
    picture === 'video' ? Math.max(1, Math.round((range.end - range.start) / frame)) : 0;
  if (picture === 'video')
    await exportVideo(
      task,
      settings,
      { start: range.start, end: range.start + frames * frame },
      frames,
      folder,
      target,
      control,
    );
  else if (picture === 'still')
    await writeStill(task, ticksToSeconds(range.start), target, control.signal);
  else await exportSound(task, settings, range, target, control);
  const { size } = await stat(target);
  return {
    width: picture ? settings.width : 0,
    height: picture ? settings.height : 0,
    frames: picture === 'still' ? 1 : frames,
    duration:
      picture === 'still' ? 0 : ticksToSeconds(picture ? frames * frame : range.end - range.start),
    wallSeconds: (Date.now() - started) / 1000,
    bytes: size,
  };
}

/**
 * Renders the picture in segments, several at a time, and joins them with the sound. Segments that
 * are whole are kept in `folder`, so that a killed export goes on where it was.
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
  const segments: Segment[] = segmentsOf(frames, settings, threads).map(({ first, last }) => ({
    path: join(
      folder,
      `segment-${digits(first)}-${digits(last)}.${segmentContainer(settings.format)}`,
    ),
    first,
    last,
    keyFrames: chapters
      .map((c) => Math.round(c.start / frame))
      .filter((n) => n > first && n < last),
  }));
  const there = await Promise.all(segments.map((s) => exists(s.path)));
  const kept = segments.reduce((sum, s, i) => sum + (there[i] ? s.last - s.first : 0), 0);
  const began = Date.now();
  // One segment alone may use all processors; several share them.
  const share = Math.min(threads, segments.length) > 1 ? 1 : 0;
  const soundPart = join(folder, `sound.${segmentContainer(settings.format)}`);
  // The first to fail stops the other.
  const failed = new AbortController();
  const stop = AbortSignal.any([signal, failed.signal]);
  const sound =
    settings.format === 'gif'
      ? Promise.resolve(false)
      : writeSoundPart(task, settings.format, whole, soundPart, stop);
  const picture = renderSegments(
    { task, settings, origin: whole.start, frames, threads: share },
    segments.filter((_, i) => !there[i]),
    threads,
    stop,
    (fresh) => {
      const fps = (fresh * 1000) / Math.max(1, Date.now() - began);
      onProgress(
        ((kept + fresh) / frames) * 0.96,
        `Frame ${kept + fresh} of ${frames}, ${fps.toFixed(0)} fps`,
      );
    },
  );
  try {
    await Promise.all([sound, picture]);
  } catch (error) {
    failed.abort();
    await Promise.allSettled([sound, picture]);
    throw error;
  }
  onProgress(0.97, settings.format === 'gif' ? 'Choosing colours' : 'Joining');
  const list = await listSegments(
    segments.map(({ path, first, last }) => ({
      path,
      seconds: ticksToSeconds((last - first) * frame),
    })),
    folder,
  );
  if (settings.format === 'gif') await joinToGif(list, folder, target, signal);
  else
    await joinWithSound(
      settings.format,
      list,
      (await sound) ? soundPart : null,
      chapters,
      folder,
      target,
      signal,
    );
  for (const name of await readdir(folder))
    if (/^(segment-|run-|sound|list|chapters|palette)/.test(name))
      await rm(join(folder, name), { force: true });
}

const exists = (path: string) =>
  access(path).then(
    () => true,
    () => false,
  );
