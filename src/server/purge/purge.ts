import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Op } from 'sequelize';
import type { ServerContext } from '../context';
import { ownedTables } from './owned';
import { unpack } from '../documents/check';
import { dataFolder, workFolder } from '../places';
import { footageFiles } from '../footage/names';
import type { FileStore } from '../stores/file-store';
import { graceEnd } from './deleted';

/** How many things went for good. */
export interface Purged {
  readonly projects: number;
  readonly footage: number;
  readonly takes: number;
  readonly files: number;
}

/**
 * Copies of the database from before migrations, and damaged documents: so many of the newest stay
 * whatever their age.
 */
const KEPT_COPIES = 5;

/**
 * Deletes for good what was deleted longer ago than the grace time, and files that nothing refers
 * to and that are as old. Rows go before files: what is left by a break in between is a file that
 * nothing refers to.
 *
 * @param now milliseconds since 1970
 */
export async function purge(context: ServerContext, now = Date.now()): Promise<Purged> {
  const before = new Date(graceEnd(now));
  return {
    projects: await purgeProjects(context, before),
    footage: await purgeFootage(context, before),
    takes: await purgeTakes(context, before),
    files: await purgeFiles(context, before.getTime()),
  };
}

async function purgeProjects(context: ServerContext, before: Date): Promise<number> {
  const { projects, revisions, changes, steps, analyses } = context.db;
  const owned = ownedTables(context);
  const gone = await projects.findAll({
    where: { deletedAt: { [Op.lt]: before } },
    attributes: ['id'],
  });
  let count = 0;
  for (const { id } of gone) {
    const where = { projectId: id };
    const gone: [store: FileStore, name: string][] = [];
    for (const { store, files, table } of owned)
      for (const row of await table.findAll({ where, attributes: ['id'], raw: true }))
        gone.push([store, `${files}/${row.id}`]);
    const removed = await context.db.transact(async (transaction) => {
      // It may have been brought back meanwhile.
      const still = await projects.count({
        where: { id, deletedAt: { [Op.lt]: before } },
        transaction,
      });
      if (!still) return false;
      await context.queue.forget(where, transaction);
      await revisions.destroy({ where, transaction });
      await changes.destroy({ where, transaction });
      await steps.destroy({ where, transaction });
      await analyses.destroy({ where, transaction });
      for (const { table } of owned) await table.destroy({ where, transaction });
      await projects.destroy({ where: { id }, transaction });
      return true;
    });
    if (!removed) continue;
    count++;
    for (const [store, name] of gone) await store.remove(name);
  }
  return count;
}

/**
 * Footage goes when neither its project's document, nor undo history, nor a kept revision names it.
 */
async function purgeFootage(context: ServerContext, before: Date): Promise<number> {
  const { projects, footage, revisions, changes, steps, analyses } = context.db;
  const gone = await footage.findAll({
    where: { deletedAt: { [Op.lt]: before } },
    attributes: ['id', 'projectId'],
  });
  const byProject = new Map<string, string[]>();
  for (const { id, projectId } of gone)
    byProject.set(projectId, [...(byProject.get(projectId) ?? []), id]);
  let count = 0;
  for (const [projectId, ids] of byProject) {
    const project = await projects.findByPk(projectId);
    const texts = project ? [String(project.document)] : [];
    for (const { step } of await steps.findAll({ where: { projectId } })) texts.push(step);
    for (const { delta } of await changes.findAll({ where: { projectId } })) texts.push(delta);
    for (const kept of await revisions.findAll({ where: { projectId } }))
      texts.push(unpack(kept.document) ?? '');
    for (const id of ids) {
      if (texts.some((text) => text.includes(`"${id}"`))) continue;
      const removed = await footage.destroy({ where: { id, deletedAt: { [Op.lt]: before } } });
      if (!removed) continue;
      await analyses.destroy({ where: { footageId: id } });
      await context.stores.files.remove(footageFiles(id));
      count++;
    }
  }
  return count;
}

async function purgeTakes(context: ServerContext, before: Date): Promise<number> {
  const { takes } = context.db;
  const where = { status: 'discarded' as const, updatedAt: { [Op.lt]: before } };
  const gone = await takes.findAll({ where, attributes: ['id'] });
  for (const { id } of gone) {
    // Footage that it was kept as has files of its own.
    if (await takes.destroy({ where: { ...where, id } }))
      await context.stores.takes.remove(`takes/${id}`);
  }
  return gone.length;
}

const ageOf = (path: string): Promise<number> =>
  stat(path).then(
    ({ mtimeMs }) => mtimeMs,
    () => Number.MAX_SAFE_INTEGER,
  );

/**
 * Files without a row, uploads and work that were broken off, and the oldest of the copies.
 */
async function purgeFiles(context: ServerContext, before: number): Promise<number> {
  let count = 0;
  const remove = async (path: string) => {
    await rm(path, { recursive: true, force: true });
    count++;
  };
  for (const { store, files, table } of ownedTables(context))
    for (const { name: id, modified } of await store.list(files)) {
      if (modified.getTime() >= before || (await table.count({ where: { id } }))) continue;
      await store.remove(`${files}/${id}`);
      count++;
    }
  const begun = (await readdir(workFolder())).map((kind) => workFolder(kind));
  for (const folder of [dataFolder('uploads'), ...begun])
    for (const name of await readdir(folder)) {
      const path = join(folder, name);
      if ((await ageOf(path)) < before) await remove(path);
    }
  for (const kind of ['backups', 'damaged']) {
    const paths = (await readdir(dataFolder(kind))).map((name) => join(dataFolder(kind), name));
    const aged = await Promise.all(paths.map(async (path) => ({ path, at: await ageOf(path) })));
    aged.sort((a, b) => b.at - a.at);
    for (const { path, at } of aged.slice(KEPT_COPIES)) if (at < before) await remove(path);
  }
  return count;
}
