import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { SmallPicture } from '@/core/matte/picture';
import type { Rect, Size } from '@/core/scale/rect';
import { programRoot } from '../places';
import { problem } from '../problem';
import { ANSWERED, ASKED, IDLE, linkMemory, linkOf, type LinkMemory } from './model-link';

/** The model takes no longer than this for a picture, loading included. */
const MOST_MS = 120_000;

/**
 * The model of a person in a thread of its own. One picture at a time is looked at there, while the
 * caller goes on.
 */
export class ModelHost implements Disposable {
  private readonly memory: LinkMemory;
  private readonly worker: Worker;

  /** @param size of all pictures */
  constructor(size: Size) {
    this.memory = linkMemory(size);
    this.worker = new Worker(join(programRoot(), 'dist', 'model-thread.mjs'), {
      workerData: this.memory,
    });
    // What is wrong is told through the link; an end by itself is not waited for.
    this.worker.unref();
  }

  /** Has a part of a picture looked at. */
  ask({ y, u, v }: SmallPicture, { x, y: top, width, height }: Rect): void {
    const { state, box, input } = linkOf(this.memory);
    box.set([x, top, width, height]);
    [y, u, v].forEach((plane, i) => input.set(plane, i * plane.length));
    Atomics.store(state, 0, ASKED);
    Atomics.notify(state, 0);
  }

  /**
   * How surely each pixel of the picture that was asked for is of a person, 0 to 1. Waits for it.
   *
   * @throws Problem when the model does not run
   */
  answer(): Float32Array {
    const { state, output } = linkOf(this.memory);
    Atomics.wait(state, 0, ASKED, MOST_MS);
    if (Atomics.load(state, 0) !== ANSWERED) throw problem('model-broken');
    Atomics.store(state, 0, IDLE);
    return output.slice();
  }

  [Symbol.dispose](): void {
    void this.worker.terminate();
  }
}
