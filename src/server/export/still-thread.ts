import { workerData } from 'piscina';
import { Interrupted } from '../jobs/context';
import { processesGone } from '../media/pipe';
import { notePidsIn } from '../media/pipe-pids';
import { Problem, systemProblem } from '../problem';
import type { RenderTask } from './render-frames';
import type { Outcome } from './segment-thread';
import { renderStill } from './still';

/*
 * A thread that makes one picture: it waits for decoders, which the worker's own thread must not.
 */
export interface StillData {
  readonly task: RenderTask;
  readonly seconds: number;
  /** Memory for the ids of the processes that it starts. */
  readonly pids: SharedArrayBuffer;
}

const { task, seconds, pids } = workerData as StillData;

export default async function make(): Promise<Outcome & { readonly png: Uint8Array | null }> {
  notePidsIn(pids);
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
