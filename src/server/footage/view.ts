import { stat } from 'node:fs/promises';
import type { FootageView, MediaFacts } from '@/contract/footage';
import type { Role } from '@/core/project/sources';
import { database } from '../db/connection';
import type { FootageRow } from '../db/models';
import { isoOf, jsonOr } from '../db/stored';
import { notFound } from '../problem';
import { originalPath } from './paths';

/** What a recording is, once it was looked at. */
export const mediaFactsOf = (row: Pick<FootageRow, 'facts'>): MediaFacts | null =>
  jsonOr<MediaFacts | null>(row.facts, null);

/** What is wrong with the file of a recording, if anything. */
async function troubleOf(row: FootageRow): Promise<FootageView['trouble']> {
  if (row.status !== 'ready') return null;
  const found = await stat(originalPath(row)).catch(() => null);
  return !found ? 'gone' : found.size === row.bytes ? null : 'changed';
}

/** A row of footage as it is told. */
export const viewOf = async (row: FootageRow): Promise<FootageView> => ({
  id: row.id,
  name: row.name,
  role: row.role as Role,
  status: row.status,
  error: row.error,
  notes: jsonOr<string[]>(row.notes, []),
  bytes: row.bytes,
  facts: mediaFactsOf(row),
  hasPointer: row.hasPointer,
  tags: jsonOr<string[]>(row.tags, []),
  inPoint: row.inPoint === null ? null : Number(row.inPoint),
  outPoint: row.outPoint === null ? null : Number(row.outPoint),
  trouble: await troubleOf(row),
  addedAt: isoOf(row.createdAt),
});

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
