import { access, rename, writeFile } from 'node:fs/promises';
import { BEDS, BED_NAMES, makeBed, type BedName } from '@/core/audio/bed';
import { wavFile } from '@/core/audio/wav';
import { addFootage } from './footage/add';
import { dataFolder } from './places';
import { notFound } from './problem';
import { join } from 'node:path';

const RATE = 48_000;

/** Path of a music bed as a WAV file; it is made the first time that it is asked for. */
export async function bedFile(name: string): Promise<string> {
  const known = BED_NAMES.find((n) => n === name);
  if (!known) throw notFound('music bed');
  const path = join(dataFolder('beds'), `${known}.wav`);
  const there = await access(path).then(
    () => true,
    () => false,
  );
  if (!there) {
    const part = `${path}.${process.pid}.part`;
    await writeFile(part, wavFile(makeBed(known, RATE), RATE));
    await rename(part, path);
  }
  return path;
}

/** Adds a music bed to a project's footage. */
export const addBed = async (projectId: string, name: BedName) =>
  addFootage({
    projectId,
    path: await bedFile(name),
    name: `${BEDS[name].title}.wav`,
    role: 'music',
    take: false,
  });
