import { workerData } from 'piscina';
import { processesGone } from '../media/pipe';
import { notePidsIn } from '../processes/noted';
import { Claims } from './claims';
import { DONE, outcomeOf, type Outcome } from '../outcome';
import { SegmentRenderer } from './segment';
import type { Segment, SegmentWork } from './segment-work';
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
  try {
    using renderer = await SegmentRenderer.open(data);
    for (let at = claims.next(null); at !== null; at = claims.next(at))
      await renderer.render(data.segments[at]!, data.segments.slice(at + 1), onFrame);
    await renderer.finish();
    return DONE;
  } catch (error) {
    if (error instanceof Stopped) return DONE;
    return outcomeOf(error);
  } finally {
    await processesGone();
  }
}
