import { rename, rm } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';

/**
 * A name for a file that is being written, of its own for each attempt: another process may be at
 * the same.
 */
export const partOfFile = (target: string): string => `${target}.${randomUUID().slice(0, 8)}.part`;

/**
 * Writes a file that appears under its name only when it is whole; a failure leaves nothing behind.
 */
export async function writeWhole(
  target: string,
  write: (part: string) => Promise<unknown>,
): Promise<void> {
  const part = partOfFile(target);
  try {
    await write(part);
    await rename(part, target);
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  }
}
