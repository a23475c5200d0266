import type { AnalysisView } from '@/contract/analyses';
import { ticksToSeconds } from '@/core/time/ticks';
import type { ServerContext } from '../context';
import { mediaFactsOf } from '../db/rows/footage';
import { findServedFootage } from '../footage/view';
import { problem } from '../problem';
import type { AlignmentParameters } from './alignment';
import { requestAnalysis } from './analyses';

/**
 * Asks how a recording lies against another of the same project.
 *
 * @param to the other one
 * @throws Problem where one of them has no sound, and where it is not said which the other one is
 */
export async function requestAlignment(
  context: ServerContext,
  footageId: string,
  to: string | undefined,
): Promise<AnalysisView & { readonly jobId: string | null }> {
  if (!to) throw problem('bad-body', 'alignWith has to say which recording it is aligned with');
  const [footage, other] = [
    await findServedFootage(context, footageId),
    await findServedFootage(context, to),
  ];
  if (footage.projectId !== other.projectId) throw problem('other-project');
  const [mine, theirs] = [mediaFactsOf(footage), mediaFactsOf(other)];
  if (!mine || !theirs) throw problem('footage-not-ready');
  for (const [{ name }, { hasAudio }] of [[footage, mine] as const, [other, theirs] as const])
    if (!hasAudio) throw problem('nothing-to-hear', name);
  const parameters: AlignmentParameters = {
    ...{ footageId: other.id, file: other.file },
    seconds: ticksToSeconds(theirs.duration),
  };
  return requestAnalysis(context, footageId, 'alignment', {
    parameters: JSON.stringify(parameters),
  });
}
