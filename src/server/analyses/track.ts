import type { FollowTask } from '@/contract/analyses';
import type { FollowOrder, FollowSummary } from '../tools/follow';
import { byTool } from './by-tool';

/** Where a part of a recording goes that was marked in one of its pictures. */
export const track = byTool<FollowSummary>('follow', {
  says: 'Following it',
  order: (facts, parameters): FollowOrder => ({
    facts,
    task: JSON.parse(parameters) as FollowTask,
  }),
  confidence: ({ seen }) => seen,
});
