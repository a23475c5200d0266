import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ServerContext } from '../context';
import { noteAnalysis } from '../analyses/analyses';
import { newId } from '../ids';
import { workFolder } from '../places';
import { trackFile } from './names';
import { readTrackText, sizeForTrack } from './track';
import { findFootage } from './view';

/** What came of attaching a track. */
export interface Attached {
  readonly notes: readonly string[];
  readonly samples: number;
}

/**
 * Attaches a pointer track, here and now: for commands, and for tracks that Vistum made itself. One
 * that comes with a request is read by a job.
 */
export async function attachTrack(
  context: ServerContext,
  id: string,
  text: string,
): Promise<Attached> {
  const { track, notes } = readTrackText(text, await sizeForTrack(context, id));
  const part = join(workFolder('tracks'), newId());
  await writeFile(part, JSON.stringify(track));
  await context.stores.files.put(trackFile(id), part);
  await (await findFootage(context, id)).update({ hasPointer: true });
  await noteAnalysis(context, id, 'pointer', {
    ...{ summary: { samples: track.samples.length }, provenance: 'recorded', confidence: 1 },
    notes,
  });
  return { notes, samples: track.samples.length };
}
