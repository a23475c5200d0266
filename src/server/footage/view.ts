import type { FootageView } from '@/contract/footage';
import type { ServerContext } from '../context';
import type { FootageRow } from '../db/models';
import { footageOf, type Footage } from '../db/rows/footage';
import { notFound } from '../problem';
import { originalFile } from './names';

/** What is wrong with the file of a recording, if anything. */
async function troubleOf(
  context: ServerContext,
  footage: Footage,
): Promise<FootageView['trouble']> {
  if (footage.status !== 'ready') return null;
  const found = await context.stores.files.find(originalFile(footage));
  return !found ? 'gone' : found.bytes === footage.bytes ? null : 'changed';
}

/** A row of footage as it is told. */
export async function viewOf(context: ServerContext, row: FootageRow): Promise<FootageView> {
  const footage = footageOf(row);
  const { projectId: _, file: __, deleted: ___, ...told } = footage;
  return { ...told, trouble: await troubleOf(context, footage) };
}

/** All footage of a project, oldest first. */
export async function listFootage(
  context: ServerContext,
  projectId: string,
): Promise<FootageView[]> {
  const { footage } = context.db;
  const rows = await footage.findAll({
    where: { projectId, deletedAt: null },
    order: [
      ['createdAt', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  return Promise.all(rows.map((row) => viewOf(context, row)));
}

/** Footage by its id, also what was deleted and can be brought back. */
export async function findFootage(context: ServerContext, id: string): Promise<FootageRow> {
  const { footage } = context.db;
  return (await footage.findByPk(id)) ?? Promise.reject(notFound('footage'));
}

/** Footage whose files may be seen: neither it nor its project was deleted. */
export async function findServedFootage(context: ServerContext, id: string): Promise<FootageRow> {
  const { projects } = context.db;
  const row = await findFootage(context, id);
  const owned = await projects.count({ where: { id: row.projectId, deletedAt: null } });
  return row.deletedAt || !owned ? Promise.reject(notFound('footage')) : row;
}
