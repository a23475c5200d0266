import { FOOTAGE_PARTS, type FootageView, type StandIns } from '@/contract/footage';
import type { ServerContext } from '../context';
import type { FootageRow } from '../db/models';
import { footageOf, type Footage } from '../db/rows/footage';
import { notFound } from '../problem';
import { countPieces } from '../ingest/pieces';
import { footageFiles, originalFile, PART_FILES } from './names';

/** What is wrong with the file of a recording, if anything. */
async function troubleOf(
  context: ServerContext,
  footage: Footage,
): Promise<FootageView['trouble']> {
  if (footage.status !== 'ready') return null;
  const found = await context.stores.files.find(originalFile(footage));
  return !found ? 'gone' : found.bytes === footage.bytes ? null : 'changed';
}

/** What there is of a recording to show it and play it by. */
async function standInsOf(
  { stores }: ServerContext,
  { id, status, facts }: Footage,
): Promise<StandIns> {
  if (!facts || status === 'failed') return { parts: [], pieces: 0 };
  const parts = FOOTAGE_PARTS.filter((part) => {
    if (part === 'still') return facts.kind === 'image';
    return part === 'sound' || part === 'peaks' ? facts.hasAudio : facts.hasVideo;
  });
  if (status === 'ready') return { parts, pieces: 0 };
  const names = (await stores.files.list(footageFiles(id))).map(({ name }) => name);
  const there = parts.filter((part) => names.includes(PART_FILES[part].file));
  return { parts: there, pieces: countPieces(names) };
}

/** A row of footage as it is told. */
export async function viewOf(context: ServerContext, row: FootageRow): Promise<FootageView> {
  const footage = footageOf(row);
  const { projectId: _, file: __, deleted: ___, ...told } = footage;
  const [trouble, standIns] = await Promise.all([
    troubleOf(context, footage),
    standInsOf(context, footage),
  ]);
  return { ...told, trouble, standIns };
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
