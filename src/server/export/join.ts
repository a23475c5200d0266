import { rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { planSound } from '@/core/audio/mix';
import type { Format } from '@/core/project/export-formats';
import type { Range } from '@/core/time/ranges';
import { ticksToSeconds } from '@/core/time/ticks';
import type { Chapter } from '@/core/words/chapters';
import { runMedia } from '../media/process';
import { container, Encoder, SOUND_INPUT, soundEncoder } from './encode';
import type { RenderTask } from './render-frames';
import { feedSound } from './sound-file';

/** Writes the list of segments that FFmpeg joins; answers its path. */
export async function listSegments(
  segments: readonly { readonly path: string; readonly seconds: number }[],
  folder: string,
): Promise<string> {
  const list = join(folder, 'list.txt');
  const quote = (path: string) => `'${path.replaceAll("'", "'\\''")}'`;
  const lines = segments.flatMap(({ path, seconds }) => [`file ${quote(path)}`, `duration ${seconds.toFixed(6)}`]);
  await writeFile(list, ['ffconcat version 1.0', ...lines].join('\n') + '\n');
  return list;
}

const listInput = (list: string) => ['-protocol_whitelist', 'file,pipe', '-f', 'concat', '-safe', '0', '-i', list];

/** One palette for the whole, chosen by what changes; two passes, so that memory does not grow with the length. */
export async function joinToGif(list: string, folder: string, target: string, signal: AbortSignal): Promise<void> {
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

/** Joins segments as they are, with the sound and the chapters. */
export async function joinWithSound(
  task: RenderTask,
  format: Format,
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
