import { AsyncLocalStorage } from 'node:async_hooks';
import { readdir, readFile } from 'node:fs/promises';

/** The job that what runs now belongs to. */
export const JOB_MARK = new AsyncLocalStorage<string>();

/** Name of the variable by which processes that a job started are known. */
const VARIABLE = 'VISTUM_JOB';

/** The environment of a process that is started now: it carries the job that it belongs to. */
export function markedEnvironment(): NodeJS.ProcessEnv {
  const job = JOB_MARK.getStore();
  return job ? { ...process.env, [VARIABLE]: job } : process.env;
}

/**
 * Ends processes that an attempt before this one started and that go on although its worker is
 * gone. The system ends them with their parent where it can; this is for where it could not. Does
 * nothing where there is no `/proc`.
 *
 * @returns how many were ended
 */
export async function endLeftovers(jobId: string): Promise<number> {
  const mark = Buffer.from(`${VARIABLE}=${jobId}\0`);
  let ended = 0;
  for (const name of await readdir('/proc').catch(() => [])) {
    const pid = Number(name);
    if (!Number.isInteger(pid) || pid === process.pid) continue;
    const environment = await readFile(`/proc/${name}/environ`).catch(() => null);
    if (!environment || !Buffer.concat([environment, Buffer.from('\0')]).includes(mark)) continue;
    try {
      process.kill(pid, 'SIGKILL');
      ended++;
    } catch {
      // It ended by itself meanwhile.
    }
  }
  return ended;
}
