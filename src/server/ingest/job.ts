import { rm } from 'node:fs/promises';
import { mediaFactsOf, roleOf } from '../db/rows/footage';
import { footageFiles, originalFile } from '../footage/names';
import type { Work } from '../jobs/work';
import { limit } from '../limits';
import { problem } from '../problem';
import { queueAnalysis } from '../analyses/analyses';
import { attemptFolder, clearAttempts, keepMade, keepOne } from './attempts';
import { failIngest } from './failed';
import { makePeaks } from './peaks';
import { isPiece, keepPieces, removePieces } from './pieces';
import { makeProxy, makeSound, makeStill, makeThumbs, type IngestTask } from './steps';

/** Whether screen recordings are looked through as they come; else when it is asked for. */
const looksByItself = (): boolean => process.env.VISTUM_LOOK !== 'asked';

/**
 * Makes what the preview needs of a recording that was looked at, in a folder of the attempt's own.
 * The sound, its levels, and pieces of the picture can be had as soon as they are whole: who cuts
 * does not wait for the rest. Killed and run again, it starts over; nothing is half there.
 */
export const ingestWork: Work = {
  seconds: () => limit('ingestSeconds'),
  async run(context, footageId, { signal, report, attempt }) {
    const { footage } = context.db;
    const row = await footage.findByPk(footageId);
    if (!row) return () => Promise.resolve();
    const facts = mediaFactsOf(row);
    if (!facts) throw problem('footage-not-ready');
    await clearAttempts(footageId);
    const folder = attemptFolder(row.id, attempt);
    const keep = (name: string) => keepOne(context, footageId, folder, name);
    const pieces = keepPieces(folder, keep);
    try {
      const task: IngestTask = {
        folder,
        original: await context.stores.files.path(originalFile(row)),
        facts,
        signal,
        onProgress: (share) => {
          report(0.02 + share * 0.97, 'Preparing the preview');
          pieces.look();
        },
      };
      report(0.02, facts.hasVideo ? 'Preparing the preview' : 'Preparing the sound');
      if (facts.hasAudio) {
        await makePeaks(task);
        await keep('peaks.bin');
        await makeSound(task);
        await keep('sound.webm');
      }
      if (facts.kind === 'image') await makeStill(task);
      if (facts.hasVideo) {
        await makeProxy(task);
        await pieces.done();
        await makeThumbs(task);
      }
      return async (transaction) => {
        const now = await footage.findByPk(footageId, { transaction });
        if (!now) return;
        await keepMade(context, footageId, folder, (name) => !isPiece(name));
        if (roleOf(now) === 'screen' && facts.kind === 'video' && looksByItself())
          await queueAnalysis(context, now, 'screen', transaction);
        await now.update({ status: 'ready', error: null }, { transaction });
      };
    } catch (error) {
      await rm(folder, { recursive: true, force: true });
      throw error;
    }
  },
  failed: failIngest,
  // The whole is there now.
  done: ({ stores }, footageId) => removePieces(stores.files, footageId),
  async clear({ db, stores }, footageId) {
    await clearAttempts(footageId);
    // What was kept early of a recording that is gone for good is nobody's.
    if (await db.footage.count({ where: { id: footageId } }))
      await removePieces(stores.files, footageId);
    else await stores.files.remove(footageFiles(footageId));
  },
};
