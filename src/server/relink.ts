import { rename, rm } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { newId } from './ids';
import { sourceEnd } from '@/core/project/clip-time';
import { ticksToSeconds } from '@/core/time/ticks';
import { checkExtension, findFootage, footageFolder, originalPath } from './footage';
import { enqueue } from './jobs/queue';
import { probeMedia, type MediaFacts } from './media/probe';
import { Problem } from './problem';
import { openProject } from './projects';

/**
 * Puts another file in the place of one that is missing or changed. All that is cut from it stays as it is.
 *
 * @param path taken over
 * @throws Problem when the file can't stand for the old one: other kind, or shorter than what clips use
 */
export async function relinkFootage(footageId: string, path: string, name: string): Promise<void> {
  const row = await findFootage(footageId);
  const extension = checkExtension(name);
  // The probe goes by the name in some cases, so the file gets its own first.
  const named = `${path}${extname(name).toLowerCase()}`;
  await rename(path, named);
  try {
    const { facts } = await probeMedia(named);
    const old = row.facts ? (JSON.parse(row.facts) as MediaFacts) : null;
    if (
      old &&
      (facts.hasVideo !== old.hasVideo ||
        (old.hasAudio && !facts.hasAudio) ||
        facts.kind !== old.kind)
    )
      throw new Problem(
        422,
        `${name} can’t stand for ${row.name}: one has picture or sound that the other lacks.`,
      );
    const { project } = await openProject(row.projectId);
    const used = Math.max(
      0,
      ...project.lanes.flatMap((l) =>
        l.clips.filter((c) => c.footageId === footageId).map(sourceEnd),
      ),
    );
    if (facts.kind !== 'image' && facts.duration < used)
      throw new Problem(
        422,
        `${name} is ${ticksToSeconds(facts.duration).toFixed(1)} s long, but clips use ${row.name} up to ${ticksToSeconds(used).toFixed(1)} s. Choose the same recording.`,
      );
    const before = originalPath(row);
    const file = `${newId()}${extension}`;
    await rename(named, join(footageFolder(footageId), file));
    await row.update({
      file,
      bytes: 0,
      facts: JSON.stringify(facts),
      status: 'waiting',
      error: null,
    });
    await rm(before, { force: true });
    await enqueue('ingest', row.projectId, footageId);
  } catch (error) {
    await rm(named, { force: true });
    throw error;
  }
}
