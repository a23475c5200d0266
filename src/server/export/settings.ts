import type { Format, Quality } from '@/core/project/export-formats';
import type { FrameRate } from '@/core/time/ticks';

export interface ExportSettings {
  readonly format: Format;
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate;
  readonly quality: Quality;
  /** Mean bit rate of the picture in Mbit/s, instead of a quality; null keeps the quality. */
  readonly bitRate: number | null;
  /** Seconds of the timeline; null is all of it. A still shows the start. */
  readonly range: { readonly start: number; readonly end: number } | null;
  /** Takes sensor noise out of presenters' recordings. */
  readonly calm: boolean;
}

/** What settings are where nothing else is said. */
export const DEFAULT_SETTINGS = {
  format: 'mp4',
  quality: 'good',
  bitRate: null,
  range: null,
  calm: false,
} as const satisfies Partial<ExportSettings>;

export interface ExportResult {
  readonly width: number;
  readonly height: number;
  readonly frames: number;
  /** Seconds. */
  readonly duration: number;
  readonly wallSeconds: number;
  readonly bytes: number;
}

/** How an export is stopped, and what it tells meanwhile. */
export interface ExportControl {
  readonly signal: AbortSignal;
  readonly onProgress: (share: number, message: string) => void;
}
