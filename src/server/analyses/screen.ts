import { readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Transaction } from 'sequelize';
import type { ScreenSight, SightSummary } from '@/core/vision/screen-sight';
import type { SightSoFar } from '@/core/vision/so-far';
import type { ServerContext } from '../context';
import { workFolder } from '../places';
import { newId } from '../ids';
import { trackFile } from '../footage/names';
import { limit } from '../limits';
import { runOrdered } from '../tools/run-ordered';
import { soFarFile } from '../tools/so-far-file';
import type { AnalysisKind } from './kind';
import { noteFoundTrack } from './found-track';

/**
 * What a screen recording shows: where its pointer is, what happens beside it, and what there is to
 * read. All of it in one pass over the recording, in a process of its own.
 */
export const screen: AnalysisKind = {
  version: 4,
  needs: 'picture',
  repeatable: true,
  job: 'sight',
  seconds: () => limit('sightSeconds'),
  async run(_context, { facts, path, target, tell }, { signal, report }) {
    report(0, 'Looking at the screen');
    const soFar = soFarFile(target);
    let told = Promise.resolve('');
    const tellMore = async (before: string) => {
      const text = await readFile(soFar, 'utf8').catch(() => '');
      if (text && text !== before) await tell({ soFar: JSON.parse(text) as SightSoFar });
      return text;
    };
    const found = (await runOrdered('sight', facts, [path, target], {
      signal,
      onProgress: (share) => {
        report(share, 'Looking at the screen');
        told = told.then(tellMore).catch(() => '');
      },
    }).finally(async () => {
      await told;
      await rm(soFar, { force: true });
    })) as SightSummary;
    const { confidence } = found;
    return { summary: { ...found }, provenance: 'found', confidence, notes: [] };
  },
  async keep(context, footageId, part, transaction) {
    const { pointer } = JSON.parse(await readFile(part, 'utf8')) as ScreenSight;
    if (pointer) await keepTrack(context, footageId, pointer, transaction);
  },
};

/** A track that was found is the footage's own, unless one was recorded or corrected. */
async function keepTrack(
  context: ServerContext,
  footageId: string,
  track: NonNullable<ScreenSight['pointer']>,
  transaction: Transaction,
): Promise<void> {
  if (!(await noteFoundTrack(context, footageId, track.samples.length, transaction))) return;
  const part = join(workFolder('tracks'), newId());
  await writeFile(part, JSON.stringify(track));
  await context.stores.files.put(trackFile(footageId), part);
}
