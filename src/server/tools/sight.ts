import { readFile, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { MediaFacts } from '@/contract/footage';
import { framesPerSecond, rateFromNumber, ticksToSeconds } from '@/core/time/ticks';
import { summaryOf, type ScreenSight, type SightSummary } from '@/core/vision/screen-sight';
import { inTiles } from '@/sight/pictures';
import { ScreenSighting } from '@/sight/sight';
import { PictureStream } from '../media/picture-stream';
import { loadKernels } from '../media/node-host';

/** More pictures a second than this tell nothing that is not known. */
const MOST_PICTURES = 30;
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
  const heap = await loadKernels();
  const own = facts.frameRate ?? rateFromNumber(MOST_PICTURES);
  const rate = framesPerSecond(own) > MOST_PICTURES ? rateFromNumber(MOST_PICTURES) : own;
  const luma = inTiles(facts);
  const seconds = ticksToSeconds(facts.duration);
  const sighting = new ScreenSighting(heap, { width, height }, rate, {
    open: (start) => new PictureStream(path, facts, { start, rate, luma }),
    pictures: Math.max(1, Math.round(seconds * framesPerSecond(rate))),
    onProgress,
  });
  const { track, activities, pages } = sighting.run();
  const length = Math.round(seconds * 1000);
  const found: ScreenSight = { width, height, length, pointer: track, activities, pages };
  await writeFile(to, JSON.stringify(found));
  return summaryOf(found);
}
