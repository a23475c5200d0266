import { Op, type Transaction } from 'sequelize';
import type { ServerContext } from '../context';

/*
 * What was changed since the document was last written whole: one row a save, small. The document
 * in its row and the changes after it make the newest state.
 */

/** So many of the newest changes are kept for tabs that are behind. */
const KEPT = 300;

export interface StoredChange {
  readonly revision: number;
  /** The change as JSON text. */
  readonly delta: string;
  readonly savedAt: number;
}

/** The changes that lead from a revision on, in order. */
export async function changesSince(
  context: ServerContext,
  projectId: string,
  revision: number,
  transaction?: Transaction,
): Promise<StoredChange[]> {
  const { changes } = context.db;
  return changes.findAll({
    where: { projectId, revision: { [Op.gt]: revision } },
    attributes: ['revision', 'delta', 'savedAt'],
    order: [['revision', 'ASC']],
    raw: true,
    transaction,
  });
}

/** Whether the change that made a revision was sent under a key. */
export async function isChange(
  context: ServerContext,
  projectId: string,
  revision: number,
  key: string,
): Promise<boolean> {
  const { changes } = context.db;
  return (await changes.count({ where: { projectId, revision, key } })) > 0;
}

/** Notes a change with what it belongs to, in one transaction. */
export async function addChange(
  context: ServerContext,
  change: { projectId: string; revision: number; key: string; delta: string },
  transaction: Transaction,
): Promise<void> {
  const { changes } = context.db;
  await changes.create({ ...change, savedAt: Date.now() }, { transaction });
}

/** Lets go of changes that only tabs which are far behind would ask for. */
export async function dropOldChanges(
  context: ServerContext,
  projectId: string,
  revision: number,
  transaction: Transaction,
): Promise<void> {
  const { changes } = context.db;
  const where = { projectId, revision: { [Op.lte]: revision - KEPT } };
  await changes.destroy({ where, transaction });
}

/** Lets go of all changes: a document that came whole does not follow from those before it. */
export async function dropChanges(
  context: ServerContext,
  projectId: string,
  transaction: Transaction,
): Promise<void> {
  const { changes } = context.db;
  await changes.destroy({ where: { projectId }, transaction });
}
