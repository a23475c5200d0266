import { mattesAmong } from '@/contract/analyses';
import type { MatteFacts } from '@/core/project/sources';
import type { ServerContext } from '../context';
import { analysisOf } from '../db/rows/analyses';
import { findServedFootage } from '../footage/view';
import { notFound } from '../problem';
import { resultFile, rowOf } from './analyses';

/** The name of a matte in the store. */
export async function matteFile(context: ServerContext, id: string): Promise<string> {
  const row = await rowOf(context, id);
  if (row.kind !== 'matte' || row.status !== 'ready') throw notFound('file');
  await findServedFootage(context, row.footageId);
  return resultFile(row);
}

/** The mattes that there are of a project's recordings, newest first. */
export async function mattesOf(
  { db: { analyses } }: ServerContext,
  projectId: string,
): Promise<Record<string, MatteFacts[]>> {
  const rows = await analyses.findAll({
    where: { projectId, kind: 'matte', status: 'ready' },
    order: [['createdAt', 'DESC']],
  });
  return mattesAmong(rows.map(analysisOf).filter((found) => found !== null));
}
