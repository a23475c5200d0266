import type { Alignment } from '@/core/audio/align';
import { ticksToSeconds } from '@/core/time/ticks';
import { footageFile } from '../footage/names';
import { limit } from '../limits';
import type { AlignOrder } from '../tools/align';
import { runOrdered } from '../tools/run-ordered';
import type { AnalysisKind } from './kind';

/** What a recording is aligned with: another one, as the file that it was when it was asked for. */
export interface AlignmentParameters {
  readonly footageId: string;
  readonly file: string;
  readonly seconds: number;
}

/** How a recording lies against another that heard the same; that one counts as the first. */
export const alignment: AnalysisKind = {
  version: 1,
  needs: 'sound',
  repeatable: true,
  seconds: () => limit('sightSeconds'),
  async run({ stores }, { facts, path, target, parameters }, { signal, report }) {
    report(0, 'Comparing the sound');
    const other = JSON.parse(parameters) as AlignmentParameters;
    const order: AlignOrder = {
      paths: [await stores.files.path(footageFile(other.footageId, other.file)), path],
      seconds: [other.seconds, ticksToSeconds(facts.duration)],
      limit: limit('ingestSeconds'),
    };
    const found = (await runOrdered('align', order, [target], {
      signal,
      onProgress: (share) => report(share, 'Comparing the sound'),
    })) as Alignment;
    const confidence = found.kind === 'aligned' ? found.confidence : 0;
    return { summary: {}, provenance: 'found', confidence, notes: [] };
  },
};
