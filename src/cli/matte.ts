import { copyFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import type { MatteSummary } from '@/contract/analyses';
import { secondsToTicks } from '@/core/time/ticks';
import { findAnalysis } from '@/server/analyses/analyses';
import { matteFile } from '@/server/analyses/mattes';
import { requestMatte } from '@/server/analyses/request-matte';
import { listFootage } from '@/server/footage/view';
import { completeJob } from '@/server/jobs/complete';
import { notFound } from '@/server/problem';
import { parseRange, required } from './arguments';
import type { Answer, Call } from './call';

/** `vistum matte`: takes the background of a presenter's recording out, by no wall. */
export async function makeMatte({
  operands,
  values,
  open,
  signal,
  progress,
}: Call): Promise<Answer> {
  const project = required(operands[0], 'PROJECT');
  const footage = required(operands[1], 'FOOTAGE');
  const range = values.shot === undefined ? null : parseRange(values.shot, '--shot');
  const shot = range && {
    start: secondsToTicks(range.start),
    end: secondsToTicks(range.end),
  };
  const context = await open();
  const found = (await listFootage(context, project)).find(({ id }) => id === footage);
  if (!found) throw notFound('footage');
  const task = { method: shot ? ('shot' as const) : ('person' as const), shot };
  const { id, jobId } = await requestMatte(context, footage, task);
  if (jobId)
    await completeJob(context, jobId, signal, (share, message) =>
      progress(`${Math.round(share * 100)} % ${message}`),
    );
  // It is what its kind says.
  const summary = (await findAnalysis(context, id)).summary as unknown as MatteSummary;
  const out = values.out && resolve(values.out);
  if (out) await copyFile(await context.stores.files.path(await matteFile(context, id)), out);
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  return {
    json: { id, ...summary },
    text:
      `${found.name}: somebody is seen in ${percent(summary.seen)} of the time; ` +
      `${percent(summary.behind)} of what is behind them was seen${out ? `\n${out}` : ''}`,
  };
}
