import { workerData } from 'piscina';
import { Interrupted } from '../jobs/context';
import { JOB_MARK } from '../jobs/leftovers';
import { processesGone } from '../media/pipe';
import { notePidsIn } from '../media/pipe-pids';
import { Problem, systemProblem } from '../problem';
import type { RenderTask } from './render-frames';
import type { Outcome } from './segment-thread';
import { renderStill } from './still';

/* A thread that makes one picture: it waits for decoders, which the worker's own thread must not. */
export interface StillData {
  readonly task: RenderTask;
  readonly seconds: number;
  /** Memory for the ids of the processes that it starts. */
  readonly pids: SharedArrayBuffer;
  readonly job: string | null;
}

const { task, seconds, pids, job } = workerData as StillData;

async function make(): Promise<Outcome & { readonly png: Uint8Array | null }> {
  const none = { refused: null, interrupted: null, png: null };
  try {
    return { ...none, png: await renderStill(task, seconds) };
  } catch (error) {
    if (error instanceof Interrupted) return { ...none, interrupted: error.message };
    const found = error instanceof Problem ? error : systemProblem(error);
    if (found) return { ...none, refused: found.plain() };
    throw error;
  } finally {
    await processesGone();
  }
}

export default function work() {
  notePidsIn(pids);
  return job ? JOB_MARK.run(job, make) : make();
}
