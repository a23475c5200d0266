import type { FollowTask } from '@/contract/analyses';
import { limit } from '../limits';
import { runOrdered } from '../tools/run-ordered';
import type { FollowOrder, FollowSummary } from '../tools/follow';
import type { AnalysisKind } from './kind';

/** Where a part of a recording goes that was marked in one of its pictures. */
export const track: AnalysisKind = {
  version: 1,
  needs: 'picture',
  repeatable: true,
  seconds: () => limit('sightSeconds'),
  async run(_context, { facts, path, target, parameters }, { signal, report }) {
    report(0, 'Following it');
    const order: FollowOrder = { facts, task: JSON.parse(parameters) as FollowTask };
    const found = (await runOrdered('follow', order, [path, target], {
      signal,
      onProgress: (share) => report(share, 'Following it'),
    })) as FollowSummary;
    return { summary: { ...found }, provenance: 'found', confidence: found.seen, notes: [] };
  },
};
