import { resolve } from 'node:path';
import type { PrivateData } from '@/contract/analyses';
import { privateName } from '@/core/private/names';
import { formatClock } from '@/core/time/timecode';
import { readResult } from '@/server/analyses/analyses';
import { requestPrivate } from '@/server/analyses/request-private';
import { listFootage } from '@/server/footage/view';
import { completeJob } from '@/server/jobs/complete';
import { notFound } from '@/server/problem';
import { required } from './arguments';
import type { Answer, Call } from './call';
import { writeOut } from './write-out';

/** `vistum private`: looks for private data that a recording shows. */
export async function findPrivate(call: Call): Promise<Answer> {
  const { operands, values, open, signal, progress } = call;
  const project = required(operands[0], 'PROJECT');
  const footage = required(operands[1], 'FOOTAGE');
  const context = await open();
  const known = (await listFootage(context, project)).some(({ id }) => id === footage);
  if (!known) throw notFound('footage');
  const { id, jobId } = await requestPrivate(context, footage, values.words?.split(','));
  if (jobId)
    await completeJob(context, jobId, signal, (share, message) =>
      progress(`${Math.round(share * 100)} % ${message}`),
    );
  const data = JSON.parse(String(await readResult(context, id))) as PrivateData;
  const out = values.out && resolve(values.out);
  if (out) await writeOut(out, Buffer.from(JSON.stringify(data)));
  const lines = data.found.flatMap(({ kind, hint, stretches }) =>
    stretches.map(
      ({ from, to, rect }) =>
        `${formatClock(from / 1000)} to ${formatClock(to / 1000)}  ${hint}  ${privateName(kind)}  at ` +
        [rect.x, rect.y, rect.width, rect.height].map(Math.round).join(', '),
    ),
  );
  return {
    json: data,
    text: [`${data.found.length} found`, ...lines, ...(out ? [out] : [])].join('\n'),
  };
}
