import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import Piscina from 'piscina';
import { Interrupted } from '../jobs/context';
import { markedEnvironment } from '../jobs/leftovers';
import { pidMemory } from '../media/pipe-pids';
import { writeWhole } from '../media/whole-file';
import { programRoot } from '../places';
import { Problem, problem } from '../problem';
import { HangWatch } from './hang-watch';
import type { RenderTask } from './render-frames';
import type { Outcome } from './segment-thread';
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
    const { refused, interrupted, png } = (await pool.run(null)) as Outcome & {
      png: Uint8Array | null;
    };
    signal.throwIfAborted();
    if (watch.hung) throw problem('media-stands-still');
    if (refused) throw Problem.of(refused);
    if (interrupted !== null) throw new Interrupted(interrupted);
    await writeWhole(target, (part) => writeFile(part, png!));
  } finally {
    signal.removeEventListener('abort', stop);
    watch.stop();
    await pool.destroy();
  }
}
