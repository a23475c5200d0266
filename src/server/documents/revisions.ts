import { Op, type Transaction } from 'sequelize';
import type { ServerContext } from '../context';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

/** So many of the newest are all kept. */
const NEWEST = 3;
/** Beyond them, one for each so much time, up to an age; older ones go. */
const SPACING: readonly { readonly age: number; readonly apart: number }[] = [
  { age: HOUR, apart: 5 * MINUTE },
  { age: DAY, apart: HOUR },
  { age: 14 * DAY, apart: DAY },
];

interface Kept {
  readonly revision: number;
  /** Milliseconds since 1970. */
  readonly savedAt: number;
}

/**
 * Which of a project's revisions are no longer worth their room: the newest stay, older ones thin
 * out with their age.
 *
 * @param kept in any order
 * @param now milliseconds since 1970
 */
export function superfluous(kept: readonly Kept[], now: number): number[] {
  const newestFirst = [...kept].sort((a, b) => b.revision - a.revision);
  const gone: number[] = [];
  let last = newestFirst[Math.min(NEWEST, newestFirst.length) - 1];
  for (const one of newestFirst.slice(NEWEST)) {
    const age = now - one.savedAt;
    const apart = SPACING.find((s) => age <= s.age)?.apart;
    if (apart !== undefined && last!.savedAt - one.savedAt >= apart) last = one;
    else gone.push(one.revision);
  }
  return gone;
}

/**
 * Keeps a saved document as a revision, and lets go of those that are no longer worth their room.
 */
export async function keepRevision(
  context: ServerContext,
  projectId: string,
  revision: number,
  packed: Uint8Array,
  transaction: Transaction,
): Promise<void> {
  const { revisions } = context.db;
  const savedAt = Date.now();
  await revisions.upsert(
    { projectId, revision, document: Buffer.from(packed), savedAt },
    { transaction },
  );
  const kept = await revisions.findAll({
    where: { projectId },
    attributes: ['revision', 'savedAt'],
    raw: true,
    transaction,
  });
  const gone = superfluous(kept, savedAt);
  if (gone.length)
    await revisions.destroy({
      where: { projectId, revision: { [Op.in]: gone } },
      transaction,
    });
}
