import { Op } from 'sequelize';
import type { Deleted, DeletedKind } from '@/contract/disk';
import type { ServerContext } from '../context';
import { isoOf } from '../db/stored';
import { setFootageDeleted } from '../footage/change';
import { findFootage } from '../footage/view';
import { limit } from '../limits';
import { problem } from '../problem';
import { setProjectDeleted } from '../projects';
import { findTake, setTakeDiscarded } from '../takes/takes';

const DAY_MS = 86_400_000;

/** What was deleted before this has been long enough in the list, in milliseconds since 1970. */
export const graceEnd = (now: number): number => now - limit('keepDays') * DAY_MS;

/** All that was deleted and can be brought back, last deleted first. */
export async function listDeleted(context: ServerContext): Promise<Deleted[]> {
  const { projects, footage, takes } = context.db;
  const named = await projects.findAll({ attributes: ['id', 'name', 'deletedAt'] });
  const nameOf = new Map(named.map((row) => [row.id, row.name]));
  const gone = new Set(named.filter((row) => row.deletedAt).map((row) => row.id));
  const entry = (
    kind: DeletedKind,
    id: string,
    name: string,
    projectId: string,
    at: unknown,
  ): Deleted => {
    const deletedAt = isoOf(at);
    const purgeAt = new Date(Date.parse(deletedAt) + limit('keepDays') * DAY_MS).toISOString();
    const projectName = nameOf.get(projectId) ?? '';
    return { kind, id, name, projectId, projectName, deletedAt, purgeAt };
  };
  const recordings = await footage.findAll({
    where: { deletedAt: { [Op.ne]: null } },
    attributes: ['id', 'name', 'projectId', 'deletedAt'],
  });
  const discarded = await takes.findAll({ where: { status: 'discarded' } });
  return [
    ...named
      .filter((row) => row.deletedAt)
      .map((row) => entry('project', row.id, row.name, row.id, row.deletedAt)),
    // What belongs to a deleted project comes back with it.
    ...recordings
      .filter((row) => !gone.has(row.projectId))
      .map((row) => entry('footage', row.id, row.name, row.projectId, row.deletedAt)),
    ...discarded
      .filter((row) => !gone.has(row.projectId) && nameOf.has(row.projectId))
      .map((row) => entry('take', row.id, `Take ${row.number}`, row.projectId, row.updatedAt)),
  ].sort((a, b) => b.deletedAt.localeCompare(a.deletedAt));
}

/**
 * Brings something deleted back.
 *
 * @throws Problem when it was deleted for good meanwhile
 */
export async function bringBack(
  context: ServerContext,
  kind: DeletedKind,
  id: string,
): Promise<void> {
  const { projects } = context.db;
  if (kind === 'project') {
    if (!(await projects.count({ where: { id } }))) throw problem('already-purged');
    return setProjectDeleted(context, id, false);
  }
  if (kind === 'footage') {
    await findFootage(context, id).catch(() => Promise.reject(problem('already-purged')));
    return setFootageDeleted(context, id, false);
  }
  await findTake(context, id).catch(() => Promise.reject(problem('already-purged')));
  await setTakeDiscarded(context, id, false);
}
