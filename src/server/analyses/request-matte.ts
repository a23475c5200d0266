import type { AnalysisView, MatteTask } from '@/contract/analyses';
import type { ServerContext } from '../context';
import { mediaFactsOf } from '../db/rows/footage';
import { findServedFootage } from '../footage/view';
import { problem } from '../problem';
import { requestAnalysis } from './analyses';

/**
 * Asks for the matte of a recording.
 *
 * @throws Problem where it is not said what tells the presenter, and where the stretch without them
 *   is none of the recording
 */
export async function requestMatte(
  context: ServerContext,
  footageId: string,
  task: MatteTask | undefined,
): Promise<AnalysisView & { readonly jobId: string | null }> {
  if (!task) throw problem('bad-body', 'matte has to say what tells the presenter');
  const { method, shot } = task;
  if (method === 'person') return ask(context, footageId, { method, shot: null });
  const facts = mediaFactsOf(await findServedFootage(context, footageId));
  if (!facts) throw problem('footage-not-ready');
  if (!shot || shot.end <= shot.start || shot.end > facts.duration) throw problem('no-empty-shot');
  return ask(context, footageId, { method, shot: { start: shot.start, end: shot.end } });
}

/** What was asked for, as the analysis has it. */
export const matteParameters = (task: MatteTask): string => JSON.stringify(task);

const ask = (context: ServerContext, footageId: string, task: MatteTask) =>
  requestAnalysis(context, footageId, 'matte', { parameters: matteParameters(task) });
