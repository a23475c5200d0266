import { readFileSync } from 'node:fs';
import { constants } from 'node:os';

/** How long an end that has begun may take, in milliseconds. */
const PATIENCE_MS = 2000;
const STEP_MS = 2;
/**
 * Place of the exit status among the numbers of `/proc/<pid>/stat` that follow the name (proc(5),
 * field 52).
 */
const STATUS_FIELD = 52 - 3;

const NAMES = new Map(Object.entries(constants.signals).map(([name, number]) => [number, name]));

export interface ExitStatus {
  readonly code: number | null;
  readonly signal: string | null;
}

function statOf(pid: number): string[] | null {
  try {
    const text = readFileSync(`/proc/${pid}/stat`, 'latin1');
    return text.slice(text.lastIndexOf(')') + 2).split(' ');
  } catch {
    return null;
  }
}

/**
 * How a child of this process ended, asked without the event loop, which a thread that reads from
 * it does not get to: as long as nobody has asked for a child's end, the system keeps its status.
 *
 * @returns null when that can't be told, or it does not end
 */
export function exitStatusOf(pid: number): ExitStatus | null {
  const sleeper = new Int32Array(new SharedArrayBuffer(4));
  for (let waited = 0; waited < PATIENCE_MS; waited += STEP_MS) {
    const fields = statOf(pid);
    if (!fields) return null;
    if (fields[0] === 'Z') {
      const status = Number(fields[STATUS_FIELD]);
      if (!Number.isInteger(status)) return null;
      const signal = status & 0x7f;
      return signal
        ? { code: null, signal: NAMES.get(signal) ?? `SIG${signal}` }
        : { code: status >> 8, signal: null };
    }
    Atomics.wait(sleeper, 0, 0, STEP_MS);
  }
  return null;
}
