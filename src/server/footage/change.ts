import type { FootageChange, FootageView } from '@/contract/footage';
import { ROLES } from '@/core/project/sources';
import type { ServerContext } from '../context';
import { footageCells, mediaFactsOf } from '../db/rows/footage';
import { fitRole } from '../ingest/guess-role';
import { problem } from '../problem';
import { findFootage, viewOf } from './view';
import { queueIngest } from '../ingest/queue';

/** Changes name, role, tags, or the part that is placed. */
export async function changeFootage(
  context: ServerContext,
  id: string,
  { tags, ...change }: FootageChange,
): Promise<FootageView> {
  const row = await findFootage(context, id);
  if (change.name !== undefined && !change.name.trim()) throw problem('name-missing', 'recording');
  if (change.role && !ROLES.includes(change.role)) throw problem('role-unknown');
  const facts = mediaFactsOf(row);
  if (change.role && facts) {
    const { note } = fitRole(change.role, facts);
    if (note) throw problem('role-unfit', row.name, note.split(',')[0]!);
  }
  const from = change.inPoint === undefined ? row.inPoint : change.inPoint;
  const to = change.outPoint === undefined ? row.outPoint : change.outPoint;
  if (from !== null && to !== null && Number(to) <= Number(from)) throw problem('points-reversed');
  const words = tags && [...new Set(tags.map((t) => t.trim()).filter(Boolean))];
  await row.update({ ...change, ...footageCells(words ? { tags: words } : {}) });
  return viewOf(context, row);
}

/**
 * Takes footage out of the project and ends what is being done with it; or takes that back while it
 * has not been purged. What was being prepared is prepared then.
 */
export async function setFootageDeleted(
  context: ServerContext,
  id: string,
  deleted: boolean,
): Promise<void> {
  const row = await findFootage(context, id);
  if ((row.deletedAt !== null) === deleted) return;
  await context.db.transact(async (transaction) => {
    await row.update({ deletedAt: deleted ? new Date() : null }, { transaction });
    if (deleted) await context.queue.cancelAll({ subject: id }, transaction);
    else if (row.status === 'waiting') await queueIngest(context, row.projectId, id, transaction);
  });
}
