import { readFile, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { PrivateData } from '@/contract/analyses';
import type { MediaFacts } from '@/contract/footage';
import { findPrivate } from '@/sight/private';
import { lumaRecording } from '../media/luma-recording';
import { loadKernels } from '../media/node-host';
import { readPicture } from '../media/read-text';

/** Others who work on this machine go first. */
const LOW = 10;

/** What is to be looked through, and for which words beside the usual. */
export interface PrivateOrder {
  readonly facts: MediaFacts;
  readonly words: readonly string[];
}

/** How much private data there is. */
export interface PrivateSummary {
  readonly found: number;
}

/**
 * Looks through a recording for private data, and writes where it stands, a `PrivateData`: no text
 * of it, only its first two signs.
 *
 * @param orderFile holds a `PrivateOrder`, as JSON
 * @param onProgress is told the share that is done, 0 to 1
 */
export async function lookForPrivate(
  orderFile: string,
  path: string,
  to: string,
  onProgress: (share: number) => void,
): Promise<PrivateSummary> {
  setPriority(LOW);
  const { facts, words } = JSON.parse(await readFile(orderFile, 'utf8')) as PrivateOrder;
  const recording = lumaRecording(path, facts);
  const heap = await loadKernels();
  const found = findPrivate(heap, recording, words, readPicture, onProgress);
  const { width, height } = facts;
  const data: PrivateData = { width, height, length: recording.length, found };
  await writeFile(to, JSON.stringify(data));
  return { found: found.length };
}
