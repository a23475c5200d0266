import { readFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { MatteSummary, MatteTask } from '@/contract/analyses';
import type { MediaFacts } from '@/contract/footage';
import { makeMatte } from '../matte/make';

/** Somebody waits for this: it goes before what looks through recordings, and after the rest. */
const LOW = 5;

/** Whose matte is to be made, and what they are in. */
export interface MatteOrder {
  readonly facts: MediaFacts;
  readonly task: MatteTask;
}

/**
 * Makes the matte of a recording and writes it, a video.
 *
 * @param orderFile holds a `MatteOrder`, as JSON
 * @param onProgress is told the share that is done, 0 to 1
 * @returns a few numbers on it
 */
export async function matte(
  orderFile: string,
  path: string,
  to: string,
  onProgress: (share: number) => void,
): Promise<MatteSummary> {
  setPriority(LOW);
  const { facts, task } = JSON.parse(await readFile(orderFile, 'utf8')) as MatteOrder;
  return makeMatte(path, facts, task, to, onProgress);
}
