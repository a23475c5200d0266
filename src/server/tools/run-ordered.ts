import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { newId } from '../ids';
import { limit } from '../limits';
import { workFolder } from '../places';
import { runTool, type ToolRun } from './run-tool';

/**
 * Runs one of the tools that look through whole recordings. What it is to do goes along as a file,
 * which is its first argument.
 *
 * @param files its other arguments
 * @returns the JSON value that it answered
 * @throws Problem and `Interrupted` as `runTool` does
 */
export async function runOrdered(
  tool: 'again' | 'align' | 'face' | 'sight' | 'follow' | 'leaks' | 'matte' | 'private',
  order: unknown,
  files: readonly string[],
  { signal, onProgress }: Pick<ToolRun, 'signal' | 'onProgress'>,
): Promise<unknown> {
  const told = join(workFolder('orders'), `${newId()}.json`);
  await writeFile(told, JSON.stringify(order));
  try {
    return await runTool([tool, told, ...files], {
      ...{ signal, ...(onProgress && { onProgress }) },
      seconds: limit('sightSeconds'),
      // It starts decoders, which may not be given more than it has itself.
      memory: Math.max(limit('toolMemory'), limit('mediaMemory')),
    });
  } finally {
    await rm(told, { force: true });
  }
}
