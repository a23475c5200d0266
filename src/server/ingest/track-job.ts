import { rename, rm } from 'node:fs/promises';
import { database } from '../db/connection';
import { jsonOr } from '../db/stored';
import { trackPath } from '../footage/paths';
import { sizeForTrack, trackUpload } from '../footage/track';
import type { Work } from '../jobs/context';
import { limit } from '../limits';
import { writeWhole } from '../media/whole-file';
import { problem, Problem } from '../problem';
import { runTool } from '../tools/run-tool';

/**
 * Sentences on a track begin with this, so that those on the one before can be told and taken away.
 */
const ABOUT = 'Pointer track: ';

const withNotes = (notes: string, fresh: readonly string[]): string =>
  JSON.stringify([
    ...jsonOr<string[]>(notes, []).filter((note) => !note.startsWith(ABOUT)),
    ...fresh.map((note) => ABOUT + note),
  ]);

/** Reads a pointer track that was sent and attaches it to its recording. */
export const trackWork: Work = {
  seconds: () => limit('trackSeconds') + 60,
  async run(footageId, { signal, report }) {
    const { footage } = await database();
    const { width, height } = await sizeForTrack(footageId);
    report(0.1, 'Reading the pointer track');
    let read = { notes: [] as readonly string[], samples: 0 };
    const target = trackPath(footageId);
    const ready = `${target}.ready.part`;
    try {
      await writeWhole(ready, async (part) => {
        const args = ['track', trackUpload(footageId), part, String(width), String(height)];
        const limits = { seconds: limit('trackSeconds'), memory: limit('toolMemory') };
        read = (await runTool(args, { signal, ...limits })) as typeof read;
      });
    } catch (error) {
      if (error instanceof Problem && error.code === 'media-too-slow')
        throw problem('track-too-slow');
      throw error;
    }
    return async (transaction) => {
      const row = await footage.findByPk(footageId, { transaction });
      if (!row) return;
      await rename(ready, target);
      await rm(trackUpload(footageId), { force: true });
      await row.update(
        {
          hasPointer: true,
          notes: withNotes(row.notes, [`${read.samples} positions.`, ...read.notes]),
        },
        { transaction },
      );
    };
  },
  failed: (footageId, sentence) => async (transaction) => {
    const { footage } = await database();
    const row = await footage.findByPk(footageId, { transaction });
    await row?.update(
      { notes: withNotes(row.notes, [`it was not attached. ${sentence}`]) },
      { transaction },
    );
  },
  clear: (footageId) => rm(trackUpload(footageId), { force: true }),
};
