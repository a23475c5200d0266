import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { BEDS, BED_NAMES, makeBed, type BedName } from '@/core/audio/bed';
import { wavFile } from '@/core/audio/wav';
import type { ServerContext } from './context';
import { addFootage } from './footage/add';
import { newId } from './ids';
import { workFolder } from './places';
import { notFound } from './problem';

const RATE = 48_000;

/** The name in the store of a music bed as a WAV file, made the first time that it is asked for. */
export async function bedFile({ stores }: ServerContext, name: string): Promise<string> {
  const known = BED_NAMES.find((n) => n === name);
  if (!known) throw notFound('music bed');
  const file = `beds/${known}.wav`;
  if (!(await stores.files.find(file))) {
    const part = join(workFolder('beds'), newId());
    await writeFile(part, wavFile(makeBed(known, RATE), RATE));
    await stores.files.put(file, part);
  }
  return file;
}

/** Adds a music bed to a project's footage. */
export const addBed = async (context: ServerContext, projectId: string, name: BedName) =>
  addFootage(context, {
    projectId,
    path: await context.stores.files.path(await bedFile(context, name)),
    name: `${BEDS[name].title}.wav`,
    role: 'music',
    take: false,
  });
