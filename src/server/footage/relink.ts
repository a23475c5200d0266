import { rename, rm } from 'node:fs/promises';
import { extname } from 'node:path';
import { sourceEnd } from '@/core/project/clip-time';
import { ticksToSeconds } from '@/core/time/ticks';
import { forgetAnalyses } from '../analyses/analyses';
import type { ServerContext } from '../context';
import { footageCells, mediaFactsOf } from '../db/rows/footage';
import { openProject } from '../documents/documents';
import { newId } from '../ids';
import { probeMedia } from '../media/probe';
import { problem } from '../problem';
import { checkExtension } from './add';
import { footageFile, originalFile } from './names';
import { findServedFootage } from './view';
import { queueIngest } from '../ingest/queue';

/**
 * Puts another file in the place of one that is missing or changed. All that is cut from it stays
 * as it is.
 *
 * @param projectId the project in which it was asked for
 * @param path taken over
 * @throws Problem when the file can't stand for the old one: other kind, or shorter than what clips
 * use; and when the footage belongs to another project
 */
export async function relinkFootage(
  context: ServerContext,
  projectId: string,
  footageId: string,
  path: string,
  name: string,
): Promise<void> {
  const row = await findServedFootage(context, footageId);
  if (row.projectId !== projectId) throw problem('other-project');
  const extension = checkExtension(name);
  // The probe goes by the name in some cases, so the file gets its own first.
  const named = `${path}${extname(name).toLowerCase()}`;
  await rename(path, named);
  try {
    const { facts } = await probeMedia(named);
    const old = mediaFactsOf(row);
    if (
      old &&
      (facts.hasVideo !== old.hasVideo ||
        (old.hasAudio && !facts.hasAudio) ||
        facts.kind !== old.kind)
    )
      throw problem('relink-other-kind', name, row.name);
    const { project } = await openProject(context, projectId);
    const used = Math.max(
      0,
      ...project.lanes.flatMap((l) =>
        l.clips.filter((c) => c.footageId === footageId).map(sourceEnd),
      ),
    );
    const seconds = (ticks: number) => ticksToSeconds(ticks).toFixed(1);
    if (facts.kind !== 'image' && facts.duration < used)
      throw problem('relink-too-short', name, seconds(facts.duration), row.name, seconds(used));
    const file = `${newId()}${extension}`;
    const before = originalFile(row);
    await context.stores.files.put(footageFile(footageId, file), named);
    await context.db.transact(async (transaction) => {
      await row.update(
        { file, bytes: 0, ...footageCells({ facts }), status: 'waiting', error: null },
        { transaction },
      );
      await forgetAnalyses(context, footageId, transaction);
      await queueIngest(context, projectId, footageId, transaction);
    });
    await context.stores.files.remove(before);
  } catch (error) {
    await rm(named, { force: true });
    throw error;
  }
}
