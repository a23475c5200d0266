import { applyHistoryDelta, readHistoryDelta } from '@/core/edit/history-delta';
import type { Versioned } from '@/core/edit/history';
import { PatchError } from '@/core/edit/patch';
import { validateChanged } from '@/core/project/validate';
import type { ServerContext } from '../context';
import { loadFacts } from '../footage/facts';
import { problem } from '../problem';
import { addChange, changesSince, isChange, type StoredChange } from './changes';
import { writeLater } from './checkpoint';
import { findProject, openProject } from './documents';
import { keepLive, liveState } from './live';
import { summaryOf } from './summary';

/** A change as it is sent. */
export interface SentChange {
  /** The revision that it was made for. */
  readonly base: number;
  /** Names this save: sent again, because its answer was lost, it is known. */
  readonly key: string;
  /** What was done, as `HistoryDelta` in `core` describes it. */
  readonly delta: unknown;
}

async function stateAt(context: ServerContext, id: string, revision: number): Promise<Versioned> {
  const live = liveState(id, revision);
  if (live) return live;
  const open = await openProject(context, id);
  if (open.revision !== revision) throw problem('save-stale');
  return { project: open.project, history: open.history };
}

/** The state that a change makes of the one that it was made for. */
async function changed(
  context: ServerContext,
  id: string,
  before: Versioned,
  sent: unknown,
): Promise<Versioned> {
  const delta = readHistoryDelta(sent);
  if (!delta) throw problem('bad-body', 'delta is none that this Vistum reads');
  let after: Versioned;
  try {
    after = applyHistoryDelta(before, delta);
  } catch (error) {
    if (error instanceof PatchError) throw problem('save-unfit');
    throw error;
  }
  const footage = await loadFacts(context, id, { deleted: true });
  const checked = validateChanged(before.project, after.project, { footage, pointers: {} });
  if ('project' in checked) return { project: checked.project, history: after.history };
  const [first] = checked.faults;
  throw problem('save-unsound', first!.path, first!.message).with({ faults: checked.faults });
}

/**
 * Saves what was changed in a project since a revision. Costs what the change costs, not what the
 * document does: it is not read, sent or written whole.
 *
 * @returns the new revision; the same again for a save that is sent twice
 * @throws Problem 409 when another revision is the newest, 422 when the change does not fit or
 * leads to a document that is not sound
 */
export async function saveChange(
  context: ServerContext,
  id: string,
  { base, key, delta }: SentChange,
): Promise<number> {
  const row = await findProject(context, id);
  const revision = base + 1;
  if (row.revision !== base) {
    if (await isChange(context, id, revision, key)) return revision;
    throw problem('save-stale');
  }
  const after = await changed(context, id, await stateAt(context, id, base), delta);
  const { projects } = context.db;
  await context.db.transact(async (transaction) => {
    const [count] = await projects.update(
      { revision, ...summaryOf(after.project) },
      { where: { id, revision: base, deletedAt: null }, transaction },
    );
    if (!count) throw problem('save-stale');
    await addChange(
      context,
      { projectId: id, revision, key, delta: JSON.stringify(delta) },
      transaction,
    );
  });
  keepLive(id, revision, after);
  writeLater(context, id);
  return revision;
}

/**
 * What was changed in a project since a revision, for a tab that is behind.
 *
 * @returns null for `deltas` when they are not kept any more, or never were steps
 */
export async function readChanges(
  context: ServerContext,
  id: string,
  since: number,
): Promise<{ readonly revision: number; readonly deltas: readonly unknown[] | null }> {
  const { revision } = await findProject(context, id);
  const found: readonly StoredChange[] = await changesSince(context, id, since);
  const whole =
    since + found.length === revision && found.every((c, i) => c.revision === since + i + 1);
  return { revision, deltas: whole ? found.map((c) => JSON.parse(c.delta) as unknown) : null };
}
