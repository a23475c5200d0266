import type { Rect } from '@/core/scale/rect';
import type { PlanarFrame } from '@/kernels/planar';

/**
 * A decoded picture of a recording. Each picture that is decoded has an object of its own, so that
 * two are the same if they are one object.
 */
export interface SourceFrame {
  readonly picture: PlanarFrame;
  /**
   * The part of the recording that it shows, in footage pixels; null for all of it. The picture may
   * be smaller than that.
   */
  readonly part: Rect | null;
  /** The picture that was decoded before, if it is known in what they differ. */
  before: SourceFrame | null;
  /**
   * Address of a byte for each tile, 1 where this picture differs from the one before; null while
   * that is still there to be compared with.
   */
  readonly marks: number | null;
}

/**
 * Pictures of one size one after the other: either two in turn, or one that is overwritten with its
 * changes marked.
 */
export class SourceHistory {
  private newest: SourceFrame | null = null;

  /** Notes a picture; what was before the last is no longer known. */
  push(picture: PlanarFrame, part: Rect | null, marks: number | null = null): SourceFrame {
    if (this.newest) this.newest.before = null;
    return (this.newest = { picture, part, before: this.newest, marks });
  }

  /**
   * Notes a picture that has taken the place of the one before, no one knows in what it differs.
   */
  leap(picture: PlanarFrame, part: Rect | null): SourceFrame {
    this.newest = null;
    return this.push(picture, part);
  }
}
