import { limit } from '../limits';
import { runOrdered } from '../tools/run-ordered';
import type { AnalysisKind } from './kind';

/** Looks for the presenter's face, saying what it does. */
const looking = (says: string, more: readonly string[]): AnalysisKind => ({
  version: 1,
  needs: 'picture',
  repeatable: true,
  seconds: () => limit('sightSeconds'),
  async run(_context, { facts, path, target }, { signal, report }) {
    report(0, says);
    const { found } = (await runOrdered('face', facts, [path, target, ...more], {
      signal,
      onProgress: (share) => report(share, says),
    })) as { readonly found: boolean };
    return { summary: { found }, provenance: 'found', confidence: found ? 1 : 0, notes: [] };
  },
});

/** Where the presenter's face is in a recording, for most of the time. */
export const face = looking('Looking for the face', []);

/** The same, and how it moves about from beginning to end. */
export const facePath = looking('Following the face', ['follow']);
