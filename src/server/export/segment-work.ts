import type { ExportSettings } from '@/contract/exports';
import type { Ticks } from '@/core/time/ticks';
import type { RenderTask } from './render-frames';

/** A run of output frames that becomes a file of its own. */
export interface Segment {
  readonly path: string;
  readonly first: number;
  /** The frame after its last. */
  readonly last: number;
  /** Output frames after its first that must be key frames. */
  readonly keyFrames: readonly number[];
}

/** What all segments of an export share. */
export interface SegmentWork {
  readonly task: RenderTask;
  readonly settings: ExportSettings;
  /** Timeline time of output frame 0. */
  readonly origin: Ticks;
  /** How many frames the whole export has. */
  readonly frames: number;
  /** Threads of each decoder and of the encoder; 0 lets them choose. */
  readonly threads: number;
}
