import type { AnalysisView, FollowTask } from '@/contract/analyses';
import type { ServerContext } from '../context';
import { problem } from '../problem';
import { requestAnalysis } from './analyses';

/**
 * Asks for where a part of a recording goes.
 *
 * @throws Problem where it is not said which part
 */
export function requestTrack(
  context: ServerContext,
  footageId: string,
  task: FollowTask | undefined,
): Promise<AnalysisView & { readonly jobId: string | null }> {
  if (!task) throw problem('bad-body', 'follow has to say what is to be followed');
  const { x, y, width, height, ms, from, to } = task;
  const parameters = JSON.stringify({ x, y, width, height, ms, from, to });
  return requestAnalysis(context, footageId, 'track', { parameters });
}
