import { sentenceFor } from '../problem';
import type { JobContext } from './context';
import type { JobRow, JobType } from '../db/models';
import { runExport } from '../export/job';
import { runIngest } from '../ingest/job';
import { claim, finish, heartbeat, putBack } from './queue';

const WORK: Record<JobType, (subject: string, context: JobContext) => Promise<void>> = {
  ingest: runIngest,
  export: runExport,
};

const BEAT_MS = 1000;

/** Does one claimed job to its end, whatever end that is. Never throws. */
export async function runJob(
  job: JobRow,
  owner: string,
  stop: AbortSignal,
  onReport?: JobContext['report'],
): Promise<void> {
  const abort = new AbortController();
  const onStop = () => abort.abort();
  stop.addEventListener('abort', onStop);
  let progress = job.progress;
  let message = job.message;
  let sent = '';
  const beat = async () => {
    const now = `${progress.toFixed(3)} ${message}`;
    const kept = await heartbeat(job.id, owner, progress, message).catch(() => true);
    sent = now;
    if (!kept) abort.abort();
  };
  const timer = setInterval(() => void beat(), BEAT_MS);
  const report: JobContext['report'] = (p, m) => {
    progress = p;
    message = m;
    onReport?.(p, m);
    if (!sent) void beat();
  };
  try {
    await WORK[job.type](job.subject, { signal: abort.signal, report });
    await finish(job.id, 'done', 'Done');
  } catch (error) {
    if (stop.aborted) await putBack(job.id, owner);
    else if (!abort.signal.aborted) await finish(job.id, 'failed', sentenceFor(error));
  } finally {
    clearInterval(timer);
    stop.removeEventListener('abort', onStop);
  }
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

/** Takes jobs of a type one after the other until asked to stop. */
export async function workLoop(
  type: JobType,
  owner: string,
  stop: AbortSignal,
  onError: (error: unknown) => void,
): Promise<void> {
  while (!stop.aborted) {
    try {
      const job = await claim(owner, { type });
      if (job) await runJob(job, owner, stop);
      else await wait(400, stop);
    } catch (error) {
      onError(error);
      await wait(2000, stop);
    }
  }
}
