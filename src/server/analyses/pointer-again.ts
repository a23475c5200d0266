import type { AgainTask } from '@/contract/analyses';
import { limit } from '../limits';
import type { AgainOrder } from '../tools/again';
import { runOrdered } from '../tools/run-ordered';
import type { AnalysisKind } from './kind';

/** Where the pointer is around a time at which a person said where it is. */
export const pointerAgain: AnalysisKind = {
  version: 1,
  needs: 'picture',
  repeatable: true,
  seconds: () => limit('sightSeconds'),
  async run(_context, { facts, path, target, parameters }, { signal, report }) {
    report(0, 'Looking for the pointer again');
    const order: AgainOrder = { facts, task: JSON.parse(parameters) as AgainTask };
    const { found } = (await runOrdered('again', order, [path, target], {
      signal,
      onProgress: (share) => report(share, 'Looking for the pointer again'),
    })) as { readonly found: boolean };
    return { summary: { found }, provenance: 'found', confidence: found ? 1 : 0, notes: [] };
  },
};
