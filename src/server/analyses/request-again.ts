import type { AgainTask, AnalysisView } from '@/contract/analyses';
import type { ServerContext } from '../context';
import { problem } from '../problem';
import { requestAnalysis } from './analyses';

/**
 * Asks for the pointer's path around a time at which it is said where it is.
 *
 * @throws Problem where that is not said
 */
export function requestAgain(
  context: ServerContext,
  footageId: string,
  task: AgainTask | undefined,
): Promise<AnalysisView & { readonly jobId: string | null }> {
  if (!task) throw problem('bad-body', 'again has to say where the pointer is');
  const { x, y, ms, from, to } = task;
  const parameters = JSON.stringify({ x, y, ms, from, to });
  return requestAnalysis(context, footageId, 'pointer-again', { parameters });
}
