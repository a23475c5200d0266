import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Op } from 'sequelize';
import { database, inTransaction } from '../db/connection';
import { ownedTables } from '../db/owned';
import { unpack } from '../documents/check';
import { dataDirectory, dataFolder } from '../places';
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

const removeFolder = (kind: string, id: string): Promise<void> =>
  rm(join(dataDirectory(), kind, id), { recursive: true, force: true });

/**
 * Deletes for good what was deleted longer ago than the grace time, and files that nothing refers
 * to and that are as old. Rows go before files: what is left by a break in between is a file that
 * nothing refers to.
 *
 * @param now milliseconds since 1970
 */
export async function purge(now = Date.now()): Promise<Purged> {
  const before = new Date(graceEnd(now));
  return {
    projects: await purgeProjects(before),
    footage: await purgeFootage(before),
    takes: await purgeTakes(before),
    files: await purgeFiles(before.getTime()),
  };
}

async function purgeProjects(before: Date): Promise<number> {
  const db = await database();
  const { projects, jobs, revisions, changes, analyses } = db;
  const owned = ownedTables(db);
  const gone = await projects.findAll({
    where: { deletedAt: { [Op.lt]: before } },
    attributes: ['id'],
  });
  let count = 0;
  for (const { id } of gone) {
    const where = { projectId: id };
    const folders: [kind: string, id: string][] = [];
    for (const { folder, table } of owned)
      for (const row of await table.findAll({ where, attributes: ['id'], raw: true }))
        folders.push([folder, row.id]);
    const removed = await inTransaction(async (transaction) => {
      // It may have been brought back meanwhile.
      const still = await projects.count({
        where: { id, deletedAt: { [Op.lt]: before } },
        transaction,
      });
      if (!still) return false;
      await jobs.destroy({ where, transaction });
      await revisions.destroy({ where, transaction });
      await changes.destroy({ where, transaction });
      await analyses.destroy({ where, transaction });
      for (const { table } of owned) await table.destroy({ where, transaction });
      await projects.destroy({ where: { id }, transaction });
      return true;
    });
    if (!removed) continue;
    count++;
    for (const [kind, one] of folders) await removeFolder(kind, one);
  }
  return count;
}

/**
 * Footage goes when neither its project's document, nor undo history, nor a kept revision names it.
 */
async function purgeFootage(before: Date): Promise<number> {
  const { projects, footage, revisions, changes, analyses } = await database();
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
    const texts = project ? [String(project.document), String(project.history)] : [];
    for (const { delta } of await changes.findAll({ where: { projectId } })) texts.push(delta);
    for (const kept of await revisions.findAll({ where: { projectId } }))
      texts.push(unpack(kept.document) ?? '');
    for (const id of ids) {
      if (texts.some((text) => text.includes(`"${id}"`))) continue;
      const removed = await footage.destroy({ where: { id, deletedAt: { [Op.lt]: before } } });
      if (!removed) continue;
      await analyses.destroy({ where: { footageId: id } });
      await removeFolder('footage', id);
      count++;
    }
  }
  return count;
}

async function purgeTakes(before: Date): Promise<number> {
  const { takes } = await database();
  const where = { status: 'discarded' as const, updatedAt: { [Op.lt]: before } };
  const gone = await takes.findAll({ where, attributes: ['id'] });
  for (const { id } of gone) {
    // Footage that it was kept as has files of its own.
    if (await takes.destroy({ where: { ...where, id } })) await removeFolder('takes', id);
  }
  return gone.length;
}

const ageOf = (path: string): Promise<number> =>
  stat(path).then(
    ({ mtimeMs }) => mtimeMs,
    () => Number.MAX_SAFE_INTEGER,
  );

/** Folders without a row, uploads that were broken off, and the oldest of the copies. */
async function purgeFiles(before: number): Promise<number> {
  let count = 0;
  const remove = async (path: string) => {
    await rm(path, { recursive: true, force: true });
    count++;
  };
  for (const { folder, table } of ownedTables(await database()))
    for (const id of await readdir(dataFolder(folder))) {
      const path = join(dataFolder(folder), id);
      if ((await ageOf(path)) >= before) continue;
      if (!(await table.count({ where: { id } }))) await remove(path);
    }
  for (const name of await readdir(dataFolder('uploads'))) {
    const path = join(dataFolder('uploads'), name);
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
