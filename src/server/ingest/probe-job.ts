import { rm, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { UNDECIDED } from '@/contract/footage';
import { footageCells, roleOf } from '../db/rows/footage';
import { originalFile } from '../footage/names';
import type { Work } from '../jobs/work';
import { limit } from '../limits';
import { probeMedia } from '../media/probe';
import { attemptFolder, clearAttempts, keepMade } from './attempts';
import { isDrawing, rasteriseDrawing } from './drawing';
import { failIngest } from './failed';
import { fitRole, guessRole } from './guess-role';

/**
 * Finds out what a new file is. From then on it can be placed and cut; what the preview needs of it
 * is made by a job of its own, which is queued with this one's end.
 */
export const probeWork: Work = {
  // It reads the file three times at most.
  seconds: () => 3 * limit('probeSeconds') + limit('drawingSeconds'),
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
      const { size } = await stat(original);
      return async (transaction) => {
        const now = await footage.findByPk(footageId, { transaction });
        if (!now) return;
        await keepMade(context, footageId, folder);
        // A role chosen while this was running stands.
        const settled = roleOf(now) === UNDECIDED || note ? role : roleOf(now);
        await now.update(
          {
            file: basename(original),
            bytes: size,
            role: settled,
            ...footageCells({ facts, notes: note ? [note, ...notes] : notes }),
            error: null,
          },
          { transaction },
        );
        await context.queue.enqueue('ingest', now.projectId, footageId, transaction);
      };
    } catch (error) {
      await rm(folder, { recursive: true, force: true });
      throw error;
    }
  },
  failed: failIngest,
  clear: (_context, footageId) => clearAttempts(footageId),
};
