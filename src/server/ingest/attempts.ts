import { readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { footageFolder } from '../footage/paths';

/** Removes what attempts that came to nothing have left. */
export async function clearAttempts(footageId: string): Promise<void> {
  const folder = footageFolder(footageId);
  for (const name of await readdir(folder))
    if (/^attempt-|^part-|\.part$/.test(name))
      await rm(join(folder, name), { recursive: true, force: true });
}

/** Gives what an attempt made its place beside the recording. */
export async function keepMade(footageId: string, attempt: string): Promise<void> {
  for (const name of await readdir(attempt))
    await rename(join(attempt, name), join(footageFolder(footageId), name));
  await rm(attempt, { recursive: true, force: true });
}
