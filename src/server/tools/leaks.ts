import { readFile, writeFile } from 'node:fs/promises';
import { leakStretches } from '@/core/proof/leaks';
import { checkCovers, type LeakCheck } from '../proof/leak-check';

/**
 * Looks for what leaks from under the covers of an exported file, and writes the stretches.
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
  let told = 0;
  const spots = await checkCovers(check, (share) => {
    if (share < told + 0.01) return;
    told = share;
    onProgress(share);
  });
  const found = leakStretches(spots);
  await writeFile(to, JSON.stringify(found));
  return found.length;
}
