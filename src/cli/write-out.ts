import { writeFile } from 'node:fs/promises';
import { problem, systemProblem } from '@/server/problem';

/**
 * Writes a file where the person who called wants it.
 *
 * @throws Problem that says why it could not be written
 */
export async function writeOut(out: string, bytes: Buffer): Promise<void> {
  await writeFile(out, bytes).catch((error: unknown) => {
    throw systemProblem(error) ?? problem('not-written', out);
  });
}
