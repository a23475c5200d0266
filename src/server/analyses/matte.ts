import type { MatteSummary, MatteTask } from '@/contract/analyses';
import { limit } from '../limits';
import type { MatteOrder } from '../tools/matte';
import { runOrdered } from '../tools/run-ordered';
import type { AnalysisKind } from './kind';

/** Who is to be seen of a recording without a wall, picture by picture: a video of opacities. */
export const matte: AnalysisKind = {
  version: 1,
  needs: 'picture',
  repeatable: true,
  seconds: () => limit('sightSeconds'),
  async run(_context, { facts, path, target, parameters }, { signal, report }) {
    report(0, 'Taking out the background');
    const order: MatteOrder = { facts, task: JSON.parse(parameters) as MatteTask };
    const found = (await runOrdered('matte', order, [path, target], {
      signal,
      onProgress: (share) => report(share, 'Taking out the background'),
    })) as MatteSummary;
    return { summary: { ...found }, provenance: 'found', confidence: found.seen, notes: [] };
  },
};
