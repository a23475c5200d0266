import type { TakeView } from '@/contract/takes';
import type { EndReason } from '@/core/take/take';
import type { ServerContext } from '../context';
import { takeOf } from '../db/rows/takes';
import type { Work } from '../jobs/work';
import { limit } from '../limits';
import { conformTracks } from './conform';
import { noteFacts } from './facts';
import { closeSound } from './files';
import { inTurn } from './in-turn';
import { rowOf, viewOf } from './takes';

/**
 * Ends a take, whatever ended it: nothing more of it is taken, and its tracks are finished by a job
 * that stays when the server ends in the middle. Asking twice does no harm.
 */
export const closeTake = (
  context: ServerContext,
  id: string,
  reason: EndReason,
): Promise<TakeView> =>
  inTurn(id, async () => {
    const row = await rowOf(context, id);
    if (row.status !== 'recording') return viewOf(row);
    await context.db.transact(async (transaction) => {
      await row.update({ status: 'closing', reason }, { transaction });
      await context.queue.enqueue('take', row.projectId, id, transaction);
    });
    return viewOf(row);
  });

/** Finishes a take's tracks, so that it can be played and decided on. */
export const takeWork: Work = {
  seconds: () => limit('ingestSeconds'),
  async run(context, id, { signal, report }) {
    report(0, 'Finishing the take');
    const { setup } = takeOf(await rowOf(context, id));
    for (const track of setup.tracks) if (track.type === 'audio') await closeSound(id, track);
    const seconds = await conformTracks(id, setup, signal);
    await noteFacts(id, setup, signal);
    return async (transaction) => {
      const where = { id, status: 'closing' };
      await context.db.takes.update({ status: 'stopped', seconds }, { where, transaction });
    };
  },
  // As one that was broken off, which is offered to be rescued.
  failed: (context, id) => async (transaction) => {
    const where = { id, status: 'closing' };
    await context.db.takes.update({ status: 'recording', seenAt: 0 }, { where, transaction });
  },
};
