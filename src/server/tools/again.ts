import { readFile, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { AgainTask, AnalysisResults } from '@/contract/analyses';
import type { MediaFacts } from '@/contract/footage';
import { framesPerSecond } from '@/core/time/ticks';
import { pathAround } from '@/core/vision/anchored';
import type { PictureStream } from '@/sight/recording';
import { ScreenSighting } from '@/sight/sight';
import { lumaRecording, POINTER_PICTURES } from '../media/luma-recording';
import { loadKernels } from '../media/node-host';

/** Somebody waits for this: it goes before what looks through recordings, and after the rest. */
const LOW = 5;
/** To both sides of what is wanted so much is looked through too: looks are learned of motion. */
const LEAD_MS = 4000;

/** What is looked for again, and in what. */
export interface AgainOrder {
  readonly facts: MediaFacts;
  readonly task: AgainTask;
}

/**
 * Looks for a recording's pointer once more in a stretch, from where a person says that it is, and
 * writes its path, `AnalysisResults['pointer-again']`; null where it was not found there.
 *
 * @param orderFile holds an `AgainOrder`, as JSON
 * @param onProgress is told the share that is done, 0 to 1
 */
export async function again(
  orderFile: string,
  path: string,
  to: string,
  onProgress: (share: number) => void,
): Promise<{ readonly found: boolean }> {
  setPriority(LOW);
  const { facts, task } = JSON.parse(await readFile(orderFile, 'utf8')) as AgainOrder;
  const recording = lumaRecording(path, facts, POINTER_PICTURES);
  const fps = framesPerSecond(recording.rate);
  // On a picture of the recording, so that times are those of its pictures.
  const first = Math.max(0, Math.floor(((Math.min(task.from, task.ms) - LEAD_MS) * fps) / 1000));
  const starts = (first * 1000) / fps;
  const ends = Math.min(recording.length, Math.max(task.to, task.ms) + LEAD_MS);
  const count = Math.max(1, Math.round(((ends - starts) * fps) / 1000));
  const later = (ms: number) => ms - starts;
  const anchor = { ...task, ms: later(task.ms) };
  const { track } = new ScreenSighting(await loadKernels(), recording.size, recording.rate, {
    open: (seconds) =>
      shortened(recording.open(starts / 1000 + seconds), count - Math.round(seconds * fps)),
    pictures: count,
    ...{ onProgress, anchor },
  }).run();
  const range = {
    from: later(Math.min(task.from, task.ms)),
    to: later(Math.max(task.to, task.ms)),
  };
  const points = track && pathAround(track, anchor, range);
  const found: AnalysisResults['pointer-again'] = points && {
    points: points.map(([ms, x, y]) => [ms + starts, x, y]),
  };
  await writeFile(to, JSON.stringify(found));
  return { found: found !== null };
}

/** A stream that ends after so many pictures. */
function shortened(stream: PictureStream, count: number): PictureStream {
  let read = 0;
  return {
    read: (into) => read++ < count && stream.read(into),
    [Symbol.dispose]: () => stream[Symbol.dispose](),
  };
}
