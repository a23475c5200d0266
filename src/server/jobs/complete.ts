import { nanoid } from 'nanoid';
import { database } from '../db/connection';
import { problem } from '../problem';
import { claim } from './queue';
import type { JobContext } from './context';
import { runJob } from './runner';

/**
 * Sees a job through: does it here, or waits for the worker that has it already.
 * @throws Problem with the job's sentence when it fails or was cancelled
 */
export async function completeJob(
  jobId: string,
  signal: AbortSignal,
  onReport?: JobContext['report'],
): Promise<void> {
  const { jobs } = await database();
  const owner = `command-${process.pid}-${nanoid(6)}`;
  for (;;) {
    const mine = await claim(owner, { id: jobId });
    if (mine) await runJob(mine, owner, signal, onReport);
    signal.throwIfAborted();
    const job = await jobs.findByPk(jobId);
    if (!job) throw problem('job-gone');
    if (job.status === 'done') return;
    if (job.status === 'failed' || job.status === 'cancelled')
      throw problem('job-ended', job.message);
    onReport?.(job.progress, job.message);
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}
