import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import Piscina from 'piscina';
import { markedEnvironment } from '../processes/leftovers';
import { pidMemory } from '../processes/noted';
import { writeWhole } from '../media/whole-file';
import { programRoot } from '../places';
import { problem } from '../problem';
import { HangWatch } from './hang-watch';
import type { RenderTask } from './render-frames';
import { throwFailure, type Outcome } from '../outcome';
import type { StillData } from './still-thread';

/** Writes the picture at a time in seconds as a PNG file; made in a thread, which can be ended. */
export async function writeStill(
  task: RenderTask,
  seconds: number,
  target: string,
  signal: AbortSignal,
): Promise<void> {
  signal.throwIfAborted();
  const pids = pidMemory();
  const pool = new Piscina({
    filename: join(programRoot(), 'dist', 'still-thread.mjs'),
    workerData: { task, seconds, pids } satisfies StillData,
    env: markedEnvironment(),
    maxThreads: 1,
  });
  const watch = new HangWatch(pids, () => 0);
  const stop = () => watch.endAll();
  signal.addEventListener('abort', stop);
  try {
    const { png, ...outcome } = (await pool.run(null)) as Outcome & {
      png: Uint8Array | null;
    };
    signal.throwIfAborted();
    if (watch.hung) throw problem('media-stands-still');
    throwFailure(outcome);
    await writeWhole(target, (part) => writeFile(part, png!));
  } finally {
    signal.removeEventListener('abort', stop);
    watch.stop();
    await pool.destroy();
  }
}
