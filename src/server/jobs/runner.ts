import { nanoid } from 'nanoid';
import type { JobType } from '@/contract/jobs';
import type { ServerContext } from '../context';
import { analysisWork } from '../analyses/job';
import { exportWork } from '../export/job';
import { ingestWork } from '../ingest/job';
import { probeWork } from '../ingest/probe-job';
import { proofWork } from '../proof/job';
import { problem, problemFor } from '../problem';
import { Interrupted } from '../processes/interrupted';
import { endLeftovers, JOB_MARK } from '../processes/leftovers';
import { takeWork } from '../takes/close';
import { LEASE_MS } from './database-queue';
import type { Claimed } from './job-queue';
import type { Attempt, Work } from './work';

const WORK: Readonly<Record<JobType, Work>> = {
  take: takeWork,
  probe: probeWork,
  ingest: ingestWork,
  export: exportWork,
  analysis: analysisWork,
  sight: analysisWork,
  proof: proofWork,
};

/** A job that was interrupted is tried so often in all. */
export const MAX_ATTEMPTS = 3;
const BEAT_MS = 1000;
/**
 * Without a heartbeat that was heard for so long, the job counts as lost: another may take it
 * before the lease is over.
 */
const SILENT_MS = LEASE_MS - 4000;

/** Why a job is to end before it is done. */
type End = 'stop' | 'lost' | 'late';

/** Does one claimed job to its end, whatever end that is. Never throws. */
export async function runJob(
  context: ServerContext,
  job: Claimed,
  stop: AbortSignal,
  onReport?: Attempt['report'],
): Promise<void> {
  const work = WORK[job.type];
  const abort = new AbortController();
  let end: End | null = null;
  const endFor = (why: End) => {
    end ??= why;
    abort.abort();
  };
  const onStop = () => endFor('stop');
  stop.addEventListener('abort', onStop);
  if (stop.aborted) onStop();
  let progress = job.progress;
  let message = job.message;
  let heard = Date.now();
  const beat = async () => {
    const sent = Date.now();
    const kept = await context.queue.beat(job, progress, message).catch(() => null);
    // A database that can't be asked says nothing; for a while the lease is ours all the same.
    if (kept) heard = sent;
    else if (kept === false || Date.now() - heard > SILENT_MS) endFor('lost');
  };
  let first = true;
  const timer = setInterval(() => void beat(), BEAT_MS);
  const late = setTimeout(() => endFor('late'), work.seconds() * 1000);
  const report: Attempt['report'] = (p, m) => {
    progress = p;
    message = m;
    onReport?.(p, m);
    if (first) void beat();
    first = false;
  };
  // What the work starts carries the job's name, so that the next attempt finds what this one
  // leaves behind.
  const attempt = `${job.attempts}-${nanoid(6)}`;
  try {
    if (job.attempts > 1) await endLeftovers(job.id);
    if (job.attempts > MAX_ATTEMPTS) throw problem('media-killed-often');
    const outcome = await JOB_MARK.run(job.id, () =>
      work.run(context, job.subject, { signal: abort.signal, report, attempt }),
    );
    abort.signal.throwIfAborted();
    // Cancelled in its last moment: what it made is of no use to anybody.
    const mine = await context.queue.complete(job, outcome);
    if (mine)
      await work.done?.(context, job.subject).catch((error: unknown) => console.error(error));
    else await clearIfCancelled(context, job, work);
  } catch (error) {
    await endBadly(context, job, work, end, error);
  } finally {
    clearInterval(timer);
    clearTimeout(late);
    stop.removeEventListener('abort', onStop);
  }
}

/** Sees to a job that did not get done. */
async function endBadly(
  context: ServerContext,
  job: Claimed,
  work: Work,
  end: End | null,
  error: unknown,
) {
  const { queue } = context;
  const fail = async (sentence: string) => {
    const outcome = work.failed?.(context, job.subject, sentence);
    const mine = await queue.fail(job, sentence, outcome);
    if (mine) await work.clear?.(context, job.subject);
  };
  try {
    if (end === 'stop') await queue.putBack(job);
    else if (end === 'late') {
      const hours = Math.max(1, Math.round(work.seconds() / 3600));
      await fail(problem('job-too-slow', hours === 1 ? 'an hour' : `${hours} hours`).message);
    } else if (end === 'lost') await clearIfCancelled(context, job, work);
    else if (error instanceof Interrupted)
      if (job.attempts < MAX_ATTEMPTS) await queue.tryAgain(job, error.message);
      else await fail(problem('media-killed-often').message);
    else {
      const found = problemFor(error);
      if (found.code === 'unexpected') console.error(error);
      await fail(found.message);
    }
  } catch (failure) {
    // The job's lease runs out, and another attempt is made.
    console.error(failure);
  }
}

/**
 * A job that was taken away goes on elsewhere; one that was cancelled has no more use for its
 * files.
 */
async function clearIfCancelled(context: ServerContext, job: Claimed, work: Work) {
  const now = await context.queue.find(job.id).catch(() => null);
  if (!now || now.status === 'cancelled') await work.clear?.(context, job.subject);
}

const wait = (ms: number, signal: AbortSignal) =>
  new Promise<void>((resolve) => {
    const done = () => {
      clearTimeout(timer);
      signal.removeEventListener('abort', done);
      resolve();
    };
    const timer = setTimeout(done, ms);
    signal.addEventListener('abort', done);
  });

/**
 * Takes jobs of a type one after the other until asked to stop.
 *
 * @param mostOfOneProject how many of the type one project may have running, in all workers
 * together
 */
export async function workLoop(
  context: ServerContext,
  type: JobType,
  mostOfOneProject: number,
  owner: string,
  stop: AbortSignal,
  onError: (error: unknown) => void,
): Promise<void> {
  while (!stop.aborted) {
    try {
      const job = await context.queue.claim(owner, { type, mostOfOneProject });
      if (job) await runJob(context, job, stop);
      else await wait(400, stop);
    } catch (error) {
      onError(error);
      await wait(2000, stop);
    }
  }
}
