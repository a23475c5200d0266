import { workerData } from 'piscina';
import { processesGone } from '../media/pipe';
import { Problem } from '../problem';
import { Claims } from './claims';
import { SegmentRenderer, type Segment, type SegmentWork } from './segment';

/* A worker thread of the renderer: one segment after the other, until all are taken. */
export interface ThreadData extends SegmentWork {
  readonly segments: readonly Segment[];
  /** Which segments the threads have taken. */
  readonly claims: SharedArrayBuffer;
  /** Counts the frames that all threads have done. */
  readonly done: SharedArrayBuffer;
}

/** How a thread ended; errors lose their class on the way between threads. */
export type Outcome = { readonly problem: { readonly status: number; readonly message: string } | null };

const data = workerData as ThreadData;
const done = new Int32Array(data.done);

export default async function work(): Promise<Outcome> {
  const claims = new Claims(data.claims);
  const renderer = await SegmentRenderer.open(data);
  try {
    for (let at = claims.next(null); at !== null; at = claims.next(at))
      await renderer.render(data.segments[at]!, data.segments.slice(at + 1), () => Atomics.add(done, 0, 1));
    await renderer.finish();
    return { problem: null };
  } catch (error) {
    if (error instanceof Problem) return { problem: { status: error.status, message: error.message } };
    throw error;
  } finally {
    renderer.close();
    await processesGone();
  }
}
