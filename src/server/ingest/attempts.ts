import { readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { ServerContext } from '../context';
import { footageFile } from '../footage/names';
import { workFolder } from '../places';

const KIND = 'ingest';

/** The folder of one attempt at preparing a recording, made if it is not there. */
export const attemptFolder = (footageId: string, attempt: string): string =>
  workFolder(KIND, footageId, attempt);

/** Removes what attempts that came to nothing have left. */
export const clearAttempts = (footageId: string): Promise<void> =>
  rm(workFolder(KIND, footageId), { recursive: true, force: true });

/** Gives one whole file that an attempt made its place beside the recording. */
export const keepOne = (
  { stores }: ServerContext,
  footageId: string,
  folder: string,
  name: string,
): Promise<void> => stores.files.put(footageFile(footageId, name), join(folder, name));

/** Gives what an attempt made its place beside the recording. */
export async function keepMade(
  context: ServerContext,
  footageId: string,
  folder: string,
  wanted: (name: string) => boolean = () => true,
): Promise<void> {
  for (const name of await readdir(folder))
    if (wanted(name)) await keepOne(context, footageId, folder, name);
  await clearAttempts(footageId);
}
