import { mkdir, rm, stat } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { UNDECIDED } from '@/contract/footage';
import { database } from '../db/connection';
import { footageCells, roleOf } from '../db/rows/footage';
import { footageFolder, originalPath } from '../footage/paths';
import type { Work } from '../jobs/context';
import { limit } from '../limits';
import { probeMedia } from '../media/probe';
import { clearAttempts, keepMade } from './attempts';
import { isDrawing, rasteriseDrawing } from './drawing';
import { fitRole, guessRole } from './guess-role';
import { makePeaks } from './peaks';
import { makeProxy, makeSound, makeThumbs, type IngestTask } from './steps';

/**
 * Finds out what a new file is and makes what the preview needs, in a folder of the attempt's own:
 * what it made counts when the job ends with it. Killed and run again, it starts over; nothing is
 * half there.
 */
export const ingestWork: Work = {
  seconds: () => limit('ingestSeconds'),
  async run(footageId, { signal, report, attempt }) {
    const { footage } = await database();
    const row = await footage.findByPk(footageId);
    if (!row) return () => Promise.resolve();
    await clearAttempts(footageId);
    const folder = join(footageFolder(row.id), `attempt-${attempt}`);
    await mkdir(folder);
    try {
      report(0.01, 'Looking at the file');
      const original = isDrawing(row.file)
        ? await rasteriseDrawing(row, signal)
        : originalPath(row);
      const { facts, notes } = await probeMedia(original, signal);
      const wanted = roleOf(row);
      const { role, note } =
        wanted === UNDECIDED
          ? { role: guessRole(row.name, facts), note: null }
          : fitRole(wanted, facts);
      const task: IngestTask = {
        folder,
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
      const { size } = await stat(original);
      return async (transaction) => {
        const now = await footage.findByPk(footageId, { transaction });
        if (!now) return;
        await keepMade(footageId, folder);
        await now.update(
          {
            status: 'ready',
            file: basename(original),
            bytes: size,
            // A role chosen while this was running stands.
            role: roleOf(now) === UNDECIDED || note ? role : now.role,
            ...footageCells({ facts, notes: note ? [note, ...notes] : notes }),
            error: null,
          },
          { transaction },
        );
      };
    } catch (error) {
      await rm(folder, { recursive: true, force: true });
      throw error;
    }
  },
  failed: (footageId, sentence) => async (transaction) => {
    const { footage } = await database();
    await footage.update(
      { status: 'failed', error: sentence },
      { where: { id: footageId }, transaction },
    );
  },
  clear: clearAttempts,
};
