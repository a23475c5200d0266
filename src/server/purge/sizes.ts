import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';

/** Bytes of all files in a folder and those within; 0 for one that is not there. */
export async function folderBytes(folder: string): Promise<number> {
  const entries = await readdir(folder, { withFileTypes: true }).catch(() => []);
  const sizes = await Promise.all(
    entries.map(async (entry) => {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) return folderBytes(path);
      return stat(path).then(
        ({ size }) => size,
        () => 0,
      );
    }),
  );
  return sizes.reduce((sum, size) => sum + size, 0);
}
