import type { Brought } from '@/contract/footage';
import type { ServerContext } from '../context';
import { findProject } from '../documents/documents';
import { shareAnalyses } from '../analyses/analyses';
import { newId } from '../ids';
import { problem } from '../problem';
import { footageFiles } from './names';

/**
 * Makes footage of any project part of this one. What was deleted here comes back; what belongs to
 * another project is copied without copying its bytes, once, however often it is asked for.
 *
 * @throws Problem when a recording no longer exists
 */
export async function bringFootage(
  context: ServerContext,
  projectId: string,
  ids: readonly string[],
): Promise<Brought> {
  const { footage } = context.db;
  await findProject(context, projectId);
  const names: Record<string, string> = {};
  const restored: string[] = [];
  const added: string[] = [];
  for (const id of new Set(ids)) {
    const row = await footage.findByPk(id);
    if (!row || row.status !== 'ready') throw problem('copied-footage-gone');
    if (row.projectId === projectId) {
      if (row.deletedAt) {
        await row.update({ deletedAt: null });
        restored.push(row.name);
      }
      names[id] = id;
      continue;
    }
    const origin = row.origin ?? row.id;
    const there =
      (await footage.findOne({ where: { projectId, id: origin } })) ??
      (await footage.findOne({ where: { projectId, origin } }));
    if (there) {
      if (there.deletedAt) {
        await there.update({ deletedAt: null });
        restored.push(there.name);
      }
      names[id] = there.id;
      continue;
    }
    const copied = newId();
    await context.stores.files.share(footageFiles(id), footageFiles(copied));
    const {
      id: _,
      projectId: __,
      createdAt: ___,
      updatedAt: ____,
      ...rest
    } = row.get({ plain: true });
    await footage.create({ ...rest, id: copied, projectId, origin, deletedAt: null });
    await shareAnalyses(context, id, { id: copied, projectId });
    names[id] = copied;
    added.push(row.name);
  }
  return { names, restored, added };
}
