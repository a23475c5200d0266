import type { Rect } from '@/core/scale/rect';
import type { PlanarFrame } from '@/kernels/planar';

/** A decoded picture of a recording. Each picture that is decoded has an object of its own, so that two are the same if they are one object. */
export interface SourceFrame {
  readonly picture: PlanarFrame;
  /** The part of the recording that it shows, in footage pixels; null for all of it. The picture may be smaller than that. */
  readonly part: Rect | null;
  /** The picture that was decoded before, if it is still there to be compared with. */
  before: SourceFrame | null;
}

/** Two pictures of one size in turn: the newest and the one before. */
export class SourceHistory {
  private newest: SourceFrame | null = null;

  /** Notes a picture; that before the last is overwritten from now on. */
  push(picture: PlanarFrame, part: Rect | null): SourceFrame {
    if (this.newest) this.newest.before = null;
    return (this.newest = { picture, part, before: this.newest });
  }
}
