import type { FrameRate } from '@/core/time/ticks';

export const QUALITIES = ['small', 'good', 'high'] as const;
export type Quality = (typeof QUALITIES)[number];

export interface ExportSettings {
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate;
  readonly quality: Quality;
  /** Seconds of the timeline; null is all of it. */
  readonly range: { readonly start: number; readonly end: number } | null;
}

export interface ExportResult {
  readonly width: number;
  readonly height: number;
  readonly frames: number;
  /** Seconds. */
  readonly duration: number;
  readonly wallSeconds: number;
  readonly bytes: number;
}

/** Constant rate factor of the H.264 encoder for a quality; text stays clean down to `small`. */
export const RATE_FACTOR: Record<Quality, number> = { small: 26, good: 20, high: 16 };
