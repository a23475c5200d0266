import { workerData } from 'piscina';
import { Problem } from '../problem';
import { renderSegment, type Segment, type SegmentWork } from './segment';

/* A worker thread of the renderer: one segment after the other. */
export interface ThreadData extends SegmentWork {
  /** Counts the frames that all threads have done. */
  readonly done: SharedArrayBuffer;
}

/** How a segment ended; errors lose their class on the way between threads. */
export type Outcome = { readonly problem: { readonly status: number; readonly message: string } | null };

const data = workerData as ThreadData;
const done = new Int32Array(data.done);

export default async function render(segment: Segment): Promise<Outcome> {
  try {
    await renderSegment(data, segment, () => Atomics.add(done, 0, 1));
    return { problem: null };
  } catch (error) {
    if (error instanceof Problem) return { problem: { status: error.status, message: error.message } };
    throw error;
  }
}
