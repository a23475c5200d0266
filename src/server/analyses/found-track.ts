import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import type { ServerContext } from '../context';
import { summaryCell } from '../db/rows/analyses';

/** The version of the pointer's analysis that a found track counts as. */
export const TRACK_VERSION = 1;

/**
 * Notes that a recording's pointer track is one that was found in it.
 *
 * @returns false where there is one already that was recorded, sent or corrected: that stays
 */
export async function noteFoundTrack(
  context: ServerContext,
  footageId: string,
  samples: number,
  transaction: Transaction,
): Promise<boolean> {
  const { analyses, footage } = context.db;
  const row = await footage.findByPk(footageId, { transaction });
  if (!row) return false;
  const where = { footageId, kind: 'pointer' };
  const there = await analyses.findAll({ where, transaction });
  const stays = there.some(
    ({ provenance, status }) => status === 'waiting' || (provenance && provenance !== 'found'),
  );
  if (stays || (row.hasPointer && !there.some(({ provenance }) => provenance === 'found')))
    return false;
  await analyses.destroy({ where, transaction });
  await analyses.create(
    {
      ...{ id: nanoid(), footageId, projectId: row.projectId, kind: 'pointer', parameters: '' },
      ...{ version: TRACK_VERSION, status: 'ready' as const, error: null, fingerprint: null },
      ...{ summary: summaryCell({ samples }), provenance: 'found' as const, confidence: null },
    },
    { transaction },
  );
  await row.update({ hasPointer: true }, { transaction });
  return true;
}
