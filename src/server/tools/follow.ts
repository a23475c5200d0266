import { readFile, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { FollowTask } from '@/contract/analyses';
import { timeInSight } from '@/core/callout/follow-path';
import type { MediaFacts } from '@/contract/footage';
import { followFile } from '../follow/follow-file';

/** Somebody waits for this: it goes before what looks through recordings, and after the rest. */
const LOW = 5;

/** What is to be followed, and what it is in. */
export interface FollowOrder {
  readonly facts: MediaFacts;
  readonly task: FollowTask;
}

/** How much of the time that was looked through followed content is seen, 0 to 1. */
export interface FollowSummary {
  readonly seen: number;
}

/**
 * Follows what a part of a recording shows, and writes where it went, a `FollowPath`; null where
 * nothing of it could be told again.
 *
 * @param orderFile holds a `FollowOrder`, as JSON
 * @param onProgress is told the share that is done, 0 to 1
 */
export async function follow(
  orderFile: string,
  path: string,
  to: string,
  onProgress: (share: number) => void,
): Promise<FollowSummary> {
  setPriority(LOW);
  const { facts, task } = JSON.parse(await readFile(orderFile, 'utf8')) as FollowOrder;
  const found = await followFile(path, facts, task, onProgress);
  await writeFile(to, JSON.stringify(found));
  return { seen: found ? Math.min(1, timeInSight(found) / Math.max(1, found.to - found.from)) : 0 };
}
