import { workerData } from 'piscina';
import { processesGone } from '../media/pipe';
import { Interrupted } from '../jobs/context';
import { notePidsIn } from '../media/pipe-pids';
import { Problem, systemProblem, type PlainProblem } from '../problem';
import { Claims } from './claims';
import { SegmentRenderer, type Segment, type SegmentWork } from './segment';
import { threadState } from './thread-state';

/* A worker thread of the renderer: one segment after the other, until all are taken. */
export interface ThreadData extends SegmentWork {
  readonly segments: readonly Segment[];
  /** Which segments the threads have taken. */
  readonly claims: SharedArrayBuffer;
  /** Memory for `threadState`. */
  readonly shared: SharedArrayBuffer;
  /** Memory for the ids of the processes that threads start. */
  readonly pids: SharedArrayBuffer;
}

/**
 * How a thread ended, also when it was told to; errors lose their class on the way between threads.
 */
export interface Outcome {
  readonly refused: PlainProblem | null;
  readonly interrupted: string | null;
}

const DONE: Outcome = { refused: null, interrupted: null };

const data = workerData as ThreadData;
const { done, stopped } = threadState(data.shared);

/** Thrown from within a segment when the render is to end. */
class Stopped extends Error {}

const onFrame = (): void => {
  Atomics.add(done, 0, 1);
  if (Atomics.load(stopped, 0)) throw new Stopped();
};

export default async function work(): Promise<Outcome> {
  notePidsIn(data.pids);
  const claims = new Claims(data.claims);
  const renderer = await SegmentRenderer.open(data);
  try {
    for (let at = claims.next(null); at !== null; at = claims.next(at))
      await renderer.render(data.segments[at]!, data.segments.slice(at + 1), onFrame);
    await renderer.finish();
    return DONE;
  } catch (error) {
    if (error instanceof Stopped) return DONE;
    if (error instanceof Interrupted) return { ...DONE, interrupted: error.message };
    const found = error instanceof Problem ? error : systemProblem(error);
    if (found) return { ...DONE, refused: found.plain() };
    throw error;
  } finally {
    renderer.close();
    await processesGone();
  }
}
