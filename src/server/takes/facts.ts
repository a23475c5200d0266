import { readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Type } from '@sinclair/typebox';
import { MediaFacts } from '@/contract/footage';
import type { TakeSetup, TrackSetup } from '@/core/take/setup';
import type { TrackName } from '@/core/take/take';
import { byTrack } from '../db/rows/takes';
import { jsonOr } from '../db/stored';
import { probeMedia, type Probed } from '../media/probe';
import { writeWhole } from '../media/whole-file';
import { Interrupted } from '../processes/interrupted';
import { finishedPath, isFinished } from './conform';
import { takeFolder } from './files';

const Told = Type.Object({ facts: MediaFacts, notes: Type.Array(Type.String()) });
const Tracks = byTrack(Told);

const factsPath = (takeId: string): string => join(takeFolder(takeId), 'facts.json');

/**
 * Writes down what a take's finished tracks are. All of a recording is read for that, which takes
 * longer than a request may.
 */
export async function noteFacts(
  takeId: string,
  setup: TakeSetup,
  signal: AbortSignal,
): Promise<void> {
  // What was written down before may be of a shorter recording.
  await rm(factsPath(takeId), { force: true });
  const told: Partial<Record<TrackName, Probed>> = {};
  for (const track of setup.tracks) {
    if (!(await isFinished(takeId, track))) continue;
    const probed = await probeMedia(finishedPath(takeId, track), signal).catch((error: unknown) => {
      if (error instanceof Interrupted || signal.aborted) throw error;
      // What is wrong with it is said to whoever keeps it.
      return null;
    });
    if (probed) told[track.name] = probed;
  }
  // Where there is no room for it, it is found when the take is kept.
  await writeWhole(factsPath(takeId), (part) => writeFile(part, JSON.stringify(told))).catch(
    () => undefined,
  );
}

/** What a finished track is; found now where it was not written down. */
export async function factsOfTrack(takeId: string, track: TrackSetup): Promise<Probed> {
  const text = await readFile(factsPath(takeId), 'utf8').catch(() => '');
  const told = jsonOr(Tracks, text, null)?.[track.name];
  return told ?? (await probeMedia(finishedPath(takeId, track)));
}
