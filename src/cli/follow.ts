import type { FollowPath } from '@/core/callout/follow-path';
import { followTask } from '@/core/project/follow-task';
import { usedFootage } from '@/core/project/query';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { readResult } from '@/server/analyses/analyses';
import { requestTrack } from '@/server/analyses/request-track';
import { openProject } from '@/server/documents/documents';
import { loadSources } from '@/server/footage/facts';
import { completeJob } from '@/server/jobs/complete';
import { notFound, problem } from '@/server/problem';
import { parseSeconds, required } from './arguments';
import type { Answer, Call } from './call';
import { editProject } from './edit';

/** `vistum follow`: has a callout go along with what it marks. */
export async function follow({ operands, values, open, ...call }: Call): Promise<Answer> {
  const id = required(operands[0], 'PROJECT');
  const calloutId = required(operands[1], 'CALLOUT');
  const context = await open();
  const { project } = await openProject(context, id);
  const callout = project.callouts.find((one) => one.id === calloutId);
  if (!callout) throw notFound('callout');
  const sources = await loadSources(context, id, usedFootage(project.lanes));
  const time = values.at ? secondsToTicks(parseSeconds(values.at, '--at')) : callout.start;
  const whole = values.whole ?? false;
  const asked = followTask(project, sources, callout, time, whole);
  if (typeof asked === 'string') throw problem('not-followed', asked);
  const { footageId, rect, ...times } = asked;
  const { id: analysis, jobId } = await requestTrack(context, footageId, { ...rect, ...times });
  if (jobId)
    await completeJob(context, jobId, call.signal, (share, message) =>
      call.progress(`${Math.round(share * 100)} % ${message}`),
    );
  const path = JSON.parse(String(await readResult(context, analysis))) as FollowPath | null;
  if (!path) throw problem('nothing-to-follow');
  const { revision } = await editProject(context, id, 'follow-content', {
    ...{ id: calloutId, path, time, whole },
  });
  const after = (await openProject(context, id)).project;
  const { start, end } = after.callouts.find((one) => one.id === calloutId)!;
  const seen = path.runs.map(({ from, to }) => [from, to] as const);
  const [first, last] = [start, end].map((at) => ticksToSeconds(at).toFixed(2));
  return {
    json: { project: id, revision, start: ticksToSeconds(start), end: ticksToSeconds(end), seen },
    text: `Followed from ${first} to ${last} s; seen in ${seen.length} stretches of its recording`,
  };
}
