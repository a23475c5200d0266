import { stat } from 'node:fs/promises';
import type { FootageView } from '@/contract/footage';
import { database } from '../db/connection';
import type { FootageRow } from '../db/models';
import { footageOf, type Footage } from '../db/rows/footage';
import { notFound } from '../problem';
import { originalPath } from './paths';

/** What is wrong with the file of a recording, if anything. */
async function troubleOf(footage: Footage): Promise<FootageView['trouble']> {
  if (footage.status !== 'ready') return null;
  const found = await stat(originalPath(footage)).catch(() => null);
  return !found ? 'gone' : found.size === footage.bytes ? null : 'changed';
}

/** A row of footage as it is told. */
export async function viewOf(row: FootageRow): Promise<FootageView> {
  const footage = footageOf(row);
  const { projectId: _, file: __, deleted: ___, ...told } = footage;
  return { ...told, trouble: await troubleOf(footage) };
}

/** All footage of a project, oldest first. */
export async function listFootage(projectId: string): Promise<FootageView[]> {
  const { footage } = await database();
  const rows = await footage.findAll({
    where: { projectId, deletedAt: null },
    order: [
      ['createdAt', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  return Promise.all(rows.map(viewOf));
}

/** Footage by its id, also what was deleted and can be brought back. */
export async function findFootage(id: string): Promise<FootageRow> {
  const { footage } = await database();
  return (await footage.findByPk(id)) ?? Promise.reject(notFound('footage'));
}

/** Footage whose files may be seen: neither it nor its project was deleted. */
export async function findServedFootage(id: string): Promise<FootageRow> {
  const { projects } = await database();
  const row = await findFootage(id);
  const owned = await projects.count({ where: { id: row.projectId, deletedAt: null } });
  return row.deletedAt || !owned ? Promise.reject(notFound('footage')) : row;
}
