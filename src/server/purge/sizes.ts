import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';

/**
 * Bytes of files by what tells one file from another on a disk: several names may stand for the
 * same bytes.
 */
export type FileSizes = ReadonlyMap<string, number>;

/** All files in a folder and those within; none for one that is not there. */
export async function filesIn(folder: string): Promise<FileSizes> {
  const entries = await readdir(folder, { withFileTypes: true }).catch(() => []);
  const all = new Map<string, number>();
  for (const entry of entries) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) for (const [file, size] of await filesIn(path)) all.set(file, size);
    else {
      const found = await stat(path).catch(() => null);
      if (found) all.set(`${found.dev}:${found.ino}`, found.size);
    }
  }
  return all;
}

/** Bytes of files together, each counted once. */
export const bytesOf = (files: FileSizes): number =>
  [...files.values()].reduce((sum, size) => sum + size, 0);
