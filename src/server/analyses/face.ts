import { limit } from '../limits';
import { runOrdered } from '../tools/run-ordered';
import type { AnalysisKind } from './kind';

/** Where the presenter's face is in a recording. */
export const face: AnalysisKind = {
  version: 1,
  needs: 'picture',
  repeatable: true,
  seconds: () => limit('sightSeconds'),
  async run(_context, { facts, path, target }, { signal, report }) {
    report(0, 'Looking for the face');
    const { found } = (await runOrdered('face', facts, [path, target], {
      signal,
      onProgress: (share) => report(share, 'Looking for the face'),
    })) as { readonly found: boolean };
    return { summary: { found }, provenance: 'found', confidence: found ? 1 : 0, notes: [] };
  },
};
