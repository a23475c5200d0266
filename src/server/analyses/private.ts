import { limit } from '../limits';
import type { PrivateOrder, PrivateSummary } from '../tools/private';
import { runOrdered } from '../tools/run-ordered';
import type { AnalysisKind } from './kind';

/** Private data that a recording shows: addresses, numbers, keys, and words of one's own. */
export const privateData: AnalysisKind = {
  version: 1,
  needs: 'picture',
  repeatable: true,
  job: 'sight',
  seconds: () => limit('sightSeconds'),
  async run(_context, { facts, path, target, parameters }, { signal, report }) {
    report(0, 'Reading what it shows');
    const words = parameters ? (JSON.parse(parameters) as string[]) : [];
    const order: PrivateOrder = { facts, words };
    const found = (await runOrdered('private', order, [path, target], {
      signal,
      onProgress: (share) => report(share, 'Reading what it shows'),
    })) as PrivateSummary;
    return { summary: { ...found }, provenance: 'found', confidence: 1, notes: [] };
  },
};
