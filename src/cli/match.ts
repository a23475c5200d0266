import type { Alignment } from '@/core/audio/align';
import { alignmentFault } from '@/core/audio/alignment-fault';
import { readResult } from '@/server/analyses/analyses';
import { requestAlignment } from '@/server/analyses/request-alignment';
import { listFootage } from '@/server/footage/view';
import { completeJob } from '@/server/jobs/complete';
import { notFound, problem } from '@/server/problem';
import { required } from './arguments';
import type { Answer, Call } from './call';

/** `vistum match`: how a recording lies against another, by what both heard. */
export async function match({ operands, open, signal, progress }: Call): Promise<Answer> {
  const project = required(operands[0], 'PROJECT');
  const ids = [required(operands[1], 'FOOTAGE_A'), required(operands[2], 'FOOTAGE_B')];
  const context = await open();
  const all = await listFootage(context, project);
  const [a, b] = ids.map((id) => all.find((footage) => footage.id === id));
  if (!a || !b) throw notFound('footage');
  const { id, jobId } = await requestAlignment(context, b.id, a.id);
  if (jobId)
    await completeJob(context, jobId, signal, (share, message) =>
      progress(`${Math.round(share * 100)} % ${message}`),
    );
  const found = JSON.parse(String(await readResult(context, id))) as Alignment;
  if (found.kind !== 'aligned') throw problem('not-aligned', alignmentFault(found, a.name, b.name));
  const [offsetMs, driftPpm, confidence] = [
    Number((found.offset * 1000).toFixed(3)),
    Number(found.ppm.toFixed(2)),
    Number(found.confidence.toFixed(3)),
  ];
  return {
    json: { offsetMs, driftPpm, confidence },
    text:
      `${b.name} begins ${offsetMs} ms after ${a.name}; its clock is off by ${driftPpm} ppm; ` +
      `${Math.round(confidence * 100)} % of what was compared agrees`,
  };
}
