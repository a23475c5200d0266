import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { coverRect } from '@/core/private/proposed';
import { areaOf, intersect, type Rect } from '@/core/scale/rect';
import { lumaRecording } from '@/server/media/luma-recording';
import { loadKernels } from '@/server/media/node-host';
import { probeMedia } from '@/server/media/probe';
import { readPicture } from '@/server/media/read-text';
import { findPrivate } from '@/sight/private';
import { table } from './measure';
import { privatePage, THEMES, type PageTheme, type PrivateTruth } from './private-pages';

/** So many pages are shown, each for so many seconds. */
const PAGES = 4;
const SECONDS = 1.6;

const share = (part: number, all: number) => (all ? `${((100 * part) / all).toFixed(1)} %` : '-');
const covers = (a: Rect, b: Rect, least: number) => areaOf(intersect(a, b)) >= least * areaOf(b);

/** A recording of pages that follow each other. */
function record(theme: PageTheme, folder: string): { file: string; truth: PrivateTruth[][] } {
  const truth = Array.from({ length: PAGES }, (_, i) => {
    const { page, truth: there } = privatePage(theme, 100 + i * 17);
    writeFileSync(join(folder, `page-${i}.png`), page.toBuffer('image/png'));
    return there;
  });
  const file = join(folder, `${theme.size}-${theme.ink.slice(1)}.mp4`);
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-nostdin', '-y', '-framerate', String(1 / SECONDS)],
    ...['-i', join(folder, 'page-%d.png'), '-r', '30', '-pix_fmt', 'yuv420p'],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '23', file],
  ]);
  return { file, truth };
}

/** How much of the private data of made pages is found, and how much of what is found is private. */
export async function benchPrivate(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-private-'));
  const rows: string[][] = [];
  const missed: Record<string, number> = {};
  try {
    for (const theme of THEMES) {
      const { file, truth } = record(theme, folder);
      const { facts } = await probeMedia(file);
      const recording = lumaRecording(file, facts);
      const before = performance.now();
      const found = findPrivate(await loadKernels(), recording, [], readPicture, () => {});
      const took = performance.now() - before;
      const shown = found.flatMap(({ kind, stretches }) =>
        stretches.map((stretch) => ({ kind, ...stretch })),
      );
      let [all, seen, right] = [0, 0, 0];
      truth.forEach((there, page) => {
        const ms = (page + 0.5) * SECONDS * 1000;
        const now = shown.filter(({ from, to }) => from <= ms && ms < to);
        all += there.length;
        for (const { kind, rect } of there) {
          if (now.some((one) => covers(coverRect(one.rect), rect, 0.98))) seen++;
          else missed[kind] = (missed[kind] ?? 0) + 1;
        }
      });
      for (const { from, to, rect } of shown) {
        const page = Math.min(PAGES - 1, Math.floor((from + to) / 2 / 1000 / SECONDS));
        if (truth[page]!.some((one) => covers(coverRect(one.rect), rect, 0.5))) right++;
      }
      const speed = recording.length / took;
      rows.push([
        ...[theme.name, String(all), share(seen, all), share(right, shown.length)],
        `${speed.toFixed(2)}×`,
      ]);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  console.log(
    table(['page', 'private things', 'found', 'of what is found private', 'real time'], rows),
  );
  console.log('Missed:', JSON.stringify(missed));
}
