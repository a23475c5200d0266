import { secondsToTicks, type Ticks } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';
import { LruMap } from './lru';

/** A picture that comes later than this after the one before has nothing to do with it. */
const APART = secondsToTicks(0.15);
/** The share of what is new that is taken where nothing has changed, at the most steadiness. */
const LEAST_FRESH = 0.15;
/** Kernels read a byte before and behind a plane. */
const ROOM = 16;

/** Opacity and luma of the picture before, in the kernels' memory. */
interface Before {
  readonly name: string;
  readonly time: Ticks;
  readonly at: number;
}

/**
 * Keeps noise from making an outline crawl: where the picture has not changed since the one before,
 * little of what is new in its opacity is taken. The first picture of a run stays as it is.
 */
export class Steadier {
  private readonly before: LruMap<Before>;

  constructor(private readonly heap: KernelHeap) {
    this.before = new LruMap(4, ({ at }) => heap.release(at));
  }

  /**
   * Steadies the opacity of a clip's next picture.
   *
   * @param name of everything that decides what is in the planes but the time
   * @param steady 0 to 1
   */
  steady(clipId: string, name: string, time: Ticks, y: Plane, alpha: Plane, steady: number): void {
    const { heap } = this;
    const { exports } = heap;
    const count = alpha.width * alpha.height;
    const known = this.before.find(clipId);
    const length = known?.name === name ? time - known.time : -1;
    const luma = (at: number) => at + ROOM;
    const opacity = (at: number) => at + 3 * ROOM + count;
    // The same picture once more is as it was.
    if (known && length === 0) {
      exports.copyRows(opacity(known.at), 0, alpha.at, 0, count, 1);
      return;
    }
    if (known && length > 0 && length <= APART) {
      const fresh = Math.round(255 * (1 - (1 - LEAST_FRESH) * steady));
      exports.steadyAlpha(alpha.at, opacity(known.at), y.at, luma(known.at), count, fresh);
    }
    const at = heap.allocate(2 * count + 5 * ROOM);
    exports.copyRows(y.at, y.stride, luma(at), y.width, y.width, y.height);
    exports.copyRows(alpha.at, 0, opacity(at), 0, count, 1);
    this.before.set(clipId, { name, time, at });
  }
}
