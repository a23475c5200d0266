import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Format } from '@/core/project/export-formats';
import { ticksToSeconds } from '@/core/time/ticks';
import type { Chapter } from '@/core/words/chapters';
import { limit } from '../limits';
import { runMedia } from '../media/process';
import { writeWhole } from '../media/whole-file';
import { container } from './encode';

/** Writes the list of segments that FFmpeg joins; answers its path. */
export async function listSegments(
  segments: readonly { readonly path: string; readonly seconds: number }[],
  folder: string,
): Promise<string> {
  const list = join(folder, 'list.txt');
  const quote = (path: string) => `'${path.replaceAll("'", "'\\''")}'`;
  const lines = segments.flatMap(({ path, seconds }) => [
    `file ${quote(path)}`,
    `duration ${seconds.toFixed(6)}`,
  ]);
  await writeFile(list, ['ffconcat version 1.0', ...lines].join('\n') + '\n');
  return list;
}

const listInput = (list: string) => [
  '-protocol_whitelist',
  'file,pipe',
  '-f',
  'concat',
  '-safe',
  '0',
  '-i',
  list,
];

/**
 * One palette for the whole, chosen by what changes; two passes, so that memory does not grow with
 * the length.
 */
export async function joinToGif(
  list: string,
  folder: string,
  target: string,
  signal: AbortSignal,
): Promise<void> {
  const palette = join(folder, 'palette.png');
  const quiet = ['-v', 'error', '-nostdin', '-y'];
  await runMedia(
    'ffmpeg',
    [
      ...quiet,
      ...listInput(list),
      '-vf',
      'palettegen=stats_mode=diff',
      '-frames:v',
      '1',
      '-update',
      '1',
      palette,
    ],
    {
      signal,
      seconds: limit('exportSeconds'),
    },
  );
  const use = 'paletteuse=dither=bayer:bayer_scale=4:diff_mode=rectangle';
  const joined = [...quiet, ...listInput(list), '-i', palette, '-lavfi', use, '-f', 'gif'];
  await writeWhole(target, (part) =>
    runMedia('ffmpeg', [...joined, part], { signal, seconds: limit('exportSeconds') }),
  );
}

/** Joins segments as they are, with the encoded sound, if there is any, and the chapters. */
export async function joinWithSound(
  format: Format,
  list: string,
  sound: string | null,
  chapters: readonly Chapter[],
  folder: string,
  target: string,
  signal: AbortSignal,
): Promise<void> {
  const names = join(folder, 'chapters.txt');
  if (chapters.length) await writeFile(names, chapterMetadata(chapters));
  const joined = [
    ...['-v', 'error', '-nostdin', '-y'],
    ...listInput(list),
    ...(sound ? ['-i', sound] : []),
    ...(chapters.length ? ['-f', 'ffmetadata', '-i', names] : []),
    ...['-map', '0:v', ...(sound ? ['-map', '1:a'] : [])],
    ...(chapters.length ? ['-map_chapters', sound ? '2' : '1'] : []),
    ...['-c', 'copy', ...container(format)],
  ];
  await writeWhole(target, (part) =>
    runMedia('ffmpeg', [...joined, part], { signal, seconds: limit('exportSeconds') }),
  );
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
