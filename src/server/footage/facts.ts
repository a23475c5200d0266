import { readFile } from 'node:fs/promises';
import { factsFor, UNDECIDED } from '@/contract/footage';
import type { FootageFacts, Sources } from '@/core/project/sources';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import type { ScreenSight } from '@/core/vision/screen-sight';
import type { ServerContext } from '../context';
import { mediaFactsOf, roleOf, type Footage } from '../db/rows/footage';
import { guessRole } from '../ingest/guess-role';
import { resultOf } from '../analyses/analyses';
import { mattesOf } from '../analyses/mattes';
import { readTrack } from './track';
import { listFootage } from './view';

type Described = Pick<Footage, 'id' | 'name' | 'role' | 'facts'>;

/** What `core` needs to know of footage that was looked at; null before. */
export const factsOf = (footage: Described): FootageFacts | null => {
  const { name, role, facts } = footage;
  return facts && factsFor(footage, role === UNDECIDED ? guessRole(name, facts) : role, facts);
};

/**
 * What a project's footage is, by id. Without files and tracks, so that it costs one statement.
 *
 * @param deleted also footage that was deleted: undo history and other tabs may still name it
 */
export async function loadFacts(
  context: ServerContext,
  projectId: string,
  { deleted = false }: { deleted?: boolean } = {},
): Promise<Record<string, FootageFacts>> {
  const { footage } = context.db;
  const rows = await footage.findAll({
    where: { projectId, ...(deleted ? {} : { deletedAt: null }) },
    attributes: ['id', 'name', 'role', 'facts'],
  });
  const all: Record<string, FootageFacts> = {};
  for (const row of rows) {
    const { id, name } = row;
    const facts = factsOf({ id, name, role: roleOf(row), facts: mediaFactsOf(row) });
    if (facts) all[id] = facts;
  }
  return all;
}

/**
 * Footage facts of a project, and what is known of what some of it shows: pointer tracks, and what
 * was found in the pictures. Reads those, which can be large: not for a request.
 *
 * @param used ids of the footage whose tracks are read
 */
export async function loadSources(
  context: ServerContext,
  projectId: string,
  used: ReadonlySet<string>,
): Promise<Sources> {
  const footage = await loadFacts(context, projectId);
  const pointers: Record<string, PointerTrack> = {};
  const sights: Record<string, ScreenSight> = {};
  for (const { id, hasPointer } of await listFootage(context, projectId)) {
    if (!footage[id] || !used.has(id)) continue;
    if (hasPointer) pointers[id] = await readTrack(context, id, footage[id]);
    const sight = await resultOf(context, id, 'screen');
    if (sight) sights[id] = JSON.parse(await readFile(sight, 'utf8')) as ScreenSight;
  }
  return { footage, pointers, sights, mattes: await mattesOf(context, projectId) };
}
