import { stat } from 'node:fs/promises';
import { basename } from 'node:path';
import type { Role } from '@/core/project/sources';
import { database } from '../db/connection';
import { footageFolder, originalPath } from '../footage';
import type { JobContext } from '../jobs/context';
import { sentenceFor } from '../problem';
import { probeMedia } from '../media/probe';
import { isDrawing, rasteriseDrawing } from './drawing';
import { fitRole, guessRole, UNDECIDED } from './guess-role';
import { makePeaks, makeProxy, makeSound, makeThumbs, type IngestTask } from './steps';

/** Finds out what a new file is and makes what the preview needs. Killed and run again, it starts over; nothing is half there. */
export async function runIngest(footageId: string, { signal, report }: JobContext): Promise<void> {
  const { footage } = await database();
  const row = await footage.findByPk(footageId);
  if (!row) return;
  try {
    report(0.01, 'Looking at the file');
    const original = isDrawing(row.file) ? await rasteriseDrawing(row) : originalPath(row);
    const { facts, notes } = await probeMedia(original, signal);
    const { role, note } =
      row.role === UNDECIDED
        ? { role: guessRole(row.name, facts), note: null }
        : fitRole(row.role as Role, facts);
    const task: IngestTask = {
      folder: footageFolder(row.id),
      original,
      facts,
      signal,
      onProgress: (share) => report(0.05 + share * 0.9, 'Preparing the preview'),
    };
    if (facts.hasVideo) await makeProxy(task);
    if (facts.hasAudio) await makeSound(task);
    report(0.88, 'Thumbnails and waveform');
    if (facts.hasVideo) await makeThumbs(task);
    if (facts.hasAudio) await makePeaks(task);
    // A role chosen while this was running stands.
    await row.reload();
    const { size } = await stat(original);
    await row.update({
      status: 'ready',
      file: basename(original),
      bytes: size,
      role: row.role === UNDECIDED || note ? role : row.role,
      facts: JSON.stringify(facts),
      notes: JSON.stringify(note ? [note, ...notes] : notes),
      error: null,
    });
  } catch (error) {
    if (!signal.aborted) await row.update({ status: 'failed', error: sentenceFor(error) });
    throw error;
  }
}
