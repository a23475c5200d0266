import { renameSync, writeFileSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { MediaFacts } from '@/contract/footage';
import { framesPerSecond } from '@/core/time/ticks';
import { summaryOf, type ScreenSight, type SightSummary } from '@/core/vision/screen-sight';
import { soFarOf } from '@/core/vision/so-far';
import { ScreenSighting } from '@/sight/sight';
import { lumaRecording, POINTER_PICTURES } from '../media/luma-recording';
import { loadKernels } from '../media/node-host';
import { soFarFile } from './so-far-file';

/** Others who work on this machine go first. */
const LOW = 10;

/** Writes a file that is there as a whole or not at all. */
function put(path: string, text: string): void {
  writeFileSync(`${path}.part`, text);
  renameSync(`${path}.part`, path);
}

/**
 * Looks through a screen recording and writes what it finds, a `ScreenSight`; while it does so, what
 * it has found by then, a `SightSoFar`, to `soFarFile`.
 *
 * @param factsFile holds what the recording is, as JSON
 * @param onProgress is told the share that is done, 0 to 1
 * @returns a few numbers on it
 */
export async function sight(
  factsFile: string,
  path: string,
  to: string,
  onProgress: (share: number) => void,
): Promise<SightSummary> {
  setPriority(LOW);
  const facts = JSON.parse(await readFile(factsFile, 'utf8')) as MediaFacts;
  const { width, height } = facts;
  const recording = lumaRecording(path, facts, POINTER_PICTURES);
  const { size, rate, open } = recording;
  const sighting = new ScreenSighting(await loadKernels(), size, rate, {
    open,
    pictures: Math.max(1, Math.round((recording.length * framesPerSecond(rate)) / 1000)),
    onProgress,
    onSoFar: (track, until) => put(soFarFile(to), JSON.stringify(soFarOf(track, until, size))),
  });
  const { track, activities, changes, pages } = sighting.run();
  const length = Math.round(recording.length);
  const found: ScreenSight = {
    ...{ width, height, length, pointer: track, activities, changes, pages },
  };
  await writeFile(to, JSON.stringify(found));
  return summaryOf(found);
}
