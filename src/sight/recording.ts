import type { Size } from '@/core/scale/rect';
import type { FrameRate } from '@/core/time/ticks';

/** Pictures of a recording from some second on, one after the other. */
export interface PictureStream extends Disposable {
  /** Reads the next; false at the end. */
  read(into: Uint8Array): boolean;
}

/** A recording whose pictures can be looked at. */
export interface LumaRecording {
  readonly size: Size;
  readonly rate: FrameRate;
  /** In milliseconds. */
  readonly length: number;
  /** Its luma from a second on, in whole tiles. */
  readonly open: (seconds: number) => PictureStream;
}
