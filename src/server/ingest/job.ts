import { rm, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { UNDECIDED } from '@/contract/footage';
import { footageCells, roleOf } from '../db/rows/footage';
import { originalFile } from '../footage/names';
import type { Work } from '../jobs/work';
import { limit } from '../limits';
import { probeMedia } from '../media/probe';
import { attemptFolder, clearAttempts, keepMade } from './attempts';
import { queueAnalysis } from '../analyses/analyses';
import { isDrawing, rasteriseDrawing } from './drawing';
import { fitRole, guessRole } from './guess-role';
import { makePeaks } from './peaks';
import { makeProxy, makeSound, makeThumbs, type IngestTask } from './steps';

/** Whether screen recordings are looked through as they come; else when it is asked for. */
const looksByItself = (): boolean => process.env.VISTUM_LOOK !== 'asked';

/**
 * Finds out what a new file is and makes what the preview needs, in a folder of the attempt's own:
 * what it made counts when the job ends with it. Killed and run again, it starts over; nothing is
 * half there.
 */
export const ingestWork: Work = {
  seconds: () => limit('ingestSeconds'),
  async run(context, footageId, { signal, report, attempt }) {
    const { footage } = context.db;
    const row = await footage.findByPk(footageId);
    if (!row) return () => Promise.resolve();
    await clearAttempts(footageId);
    const folder = attemptFolder(row.id, attempt);
    try {
      report(0.01, 'Looking at the file');
      const brought = await context.stores.files.path(originalFile(row));
      const original = isDrawing(row.file)
        ? await rasteriseDrawing(row, brought, folder, signal)
        : brought;
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
        await keepMade(context, footageId, folder);
        // A role chosen while this was running stands.
        const settled = roleOf(now) === UNDECIDED || note ? role : roleOf(now);
        if (settled === 'screen' && facts.kind === 'video' && looksByItself())
          await queueAnalysis(context, now, 'screen', transaction);
        await now.update(
          {
            status: 'ready',
            file: basename(original),
            bytes: size,
            role: settled,
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
  failed: (context, footageId, sentence) => async (transaction) => {
    const { footage } = context.db;
    await footage.update(
      { status: 'failed', error: sentence },
      { where: { id: footageId }, transaction },
    );
  },
  clear: (_context, footageId) => clearAttempts(footageId),
};
