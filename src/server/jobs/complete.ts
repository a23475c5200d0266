import { nanoid } from 'nanoid';
import type { ServerContext } from '../context';
import { problem } from '../problem';
import { runJob } from './runner';
import type { Attempt } from './work';

/**
 * Sees a job through, and then those that it queued for the same subject: does them here, or waits
 * for the worker that has them already.
 * @throws Problem with the job's sentence when it fails or was cancelled
 */
export async function completeJob(
  context: ServerContext,
  jobId: string,
  signal: AbortSignal,
  onReport?: Attempt['report'],
): Promise<void> {
  const owner = `command-${process.pid}-${nanoid(6)}`;
  for (let id = jobId; ;) {
    const mine = await context.queue.claim(owner, { id });
    if (mine) await runJob(context, mine, signal, onReport);
    signal.throwIfAborted();
    const job = await context.queue.find(id);
    if (!job) throw problem('job-gone');
    if (job.status === 'done') {
      const all = await context.queue.about([job.subject]);
      const next = all.slice(all.findIndex((one) => one.id === id) + 1)[0];
      if (!next) return;
      id = next.id;
      continue;
    }
    if (job.status === 'failed' || job.status === 'cancelled')
      throw problem('job-ended', job.message);
    onReport?.(job.progress, job.message);
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}
