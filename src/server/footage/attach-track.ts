import { writeFile } from 'node:fs/promises';
import { noteAnalysis } from '../analyses/analyses';
import { writeWhole } from '../media/whole-file';
import { trackPath } from './paths';
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
export async function attachTrack(id: string, text: string): Promise<Attached> {
  const { track, notes } = readTrackText(text, await sizeForTrack(id));
  await writeWhole(trackPath(id), (part) => writeFile(part, JSON.stringify(track)));
  await (await findFootage(id)).update({ hasPointer: true });
  await noteAnalysis(id, 'pointer', {
    ...{ summary: { samples: track.samples.length }, provenance: 'recorded', confidence: 1 },
    notes,
  });
  return { notes, samples: track.samples.length };
}
