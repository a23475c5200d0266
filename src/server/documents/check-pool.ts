import { join } from 'node:path';
import Piscina from 'piscina';
import { limit } from '../limits';
import { programRoot } from '../places';
import { problem } from '../problem';
import {
  checkSave,
  checkStored,
  type CheckedSave,
  type CheckedStored,
  type FactsById,
} from './check';
import type { CheckTask } from './check-thread';

/** What is smaller is checked at once: handing it over would take longer. */
const SMALL = 96 << 10;
const IDLE_MS = 20_000;

const shared = globalThis as { vistumChecks?: Piscina };

const pool = (): Piscina =>
  (shared.vistumChecks ??= new Piscina({
    filename: join(programRoot(), 'dist', 'check-thread.mjs'),
    minThreads: 0,
    maxThreads: 2,
    maxQueue: 64,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: limit('checkMemory') >> 20 },
  }));

async function inThread<T>(task: CheckTask): Promise<T> {
  const late = AbortSignal.timeout(limit('checkSeconds') * 1000);
  try {
    return (await pool().run(task, { signal: late })) as T;
  } catch (error) {
    // A thread that is out of time or memory is ended; the next task gets another one.
    const { name, code } = error as { name?: string; code?: string };
    if (late.aborted || code === 'ERR_WORKER_OUT_OF_MEMORY' || name === 'AbortError')
      throw problem('busy-checking');
    throw error;
  }
}

const bounds = () => ({ depth: limit('depth'), values: limit('saveValues') });

/** `checkSave`, in a thread when it is large. */
export const checkSaveAside = async (bytes: Uint8Array, footage: FactsById): Promise<CheckedSave> =>
  bytes.length < SMALL
    ? checkSave(bytes, bounds(), footage)
    : inThread({ kind: 'save', bytes, bounds: bounds(), footage });

/** `checkStored`, in a thread when it is large. */
export const checkStoredAside = async (
  document: string,
  history: string,
  footage: FactsById,
  changes: readonly string[] = [],
): Promise<CheckedStored> =>
  document.length + history.length < SMALL
    ? checkStored(document, history, footage, changes)
    : inThread({ kind: 'stored', document, history, footage, changes });

/** Ends the threads, at the end of a command or a test. */
export async function endChecks(): Promise<void> {
  const pool = shared.vistumChecks;
  delete shared.vistumChecks;
  await pool?.destroy();
}
