import { readFile, writeFile } from 'node:fs/promises';
import { leakStretches, type Leak } from '@/core/proof/leaks';
import { checkCovers, type LeakCheck } from '../proof/leak-check';

/** The stretches in which something leaks, and the covers that were looked under. */
export interface FoundLeaks {
  readonly leaks: readonly Leak[];
  readonly checked: readonly string[];
}

/**
 * Looks for what leaks from under the covers of an exported file, and writes `FoundLeaks`.
 *
 * @param from holds a `LeakCheck`, as JSON
 * @param onProgress is told the share that is done, 0 to 1
 * @returns how many stretches there are
 */
export async function findLeaks(
  from: string,
  to: string,
  onProgress: (share: number) => void,
): Promise<number> {
  const check = JSON.parse(await readFile(from, 'utf8')) as LeakCheck;
  const { spots, checked } = await checkCovers(check, onProgress);
  const found: FoundLeaks = { leaks: leakStretches(spots), checked };
  await writeFile(to, JSON.stringify(found));
  return found.leaks.length;
}
