import { readFile, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { MediaFacts } from '@/contract/footage';
import { framesPerSecond } from '@/core/time/ticks';
import { summaryOf, type ScreenSight, type SightSummary } from '@/core/vision/screen-sight';
import { ScreenSighting } from '@/sight/sight';
import { lumaRecording, POINTER_PICTURES } from '../media/luma-recording';
import { loadKernels } from '../media/node-host';

/** Others who work on this machine go first. */
const LOW = 10;

/**
 * Looks through a screen recording and writes what it finds, a `ScreenSight`.
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
  });
  const { track, activities, changes, pages } = sighting.run();
  const length = Math.round(recording.length);
  const found: ScreenSight = {
    ...{ width, height, length, pointer: track, activities, changes, pages },
  };
  await writeFile(to, JSON.stringify(found));
  return summaryOf(found);
}
