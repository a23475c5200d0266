import { workerData } from 'piscina';
import { processesGone } from '../media/pipe';
import { notePidsIn } from '../processes/noted';
import type { RenderTask } from './render-frames';
import { DONE, outcomeOf, type Outcome } from '../outcome';
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
  try {
    return { ...DONE, png: await renderStill(task, seconds) };
  } catch (error) {
    return { ...outcomeOf(error), png: null };
  } finally {
    await processesGone();
  }
}
