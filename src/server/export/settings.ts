import type { ExportSettings } from '@/contract/exports';

/** What settings are where nothing else is said. */
export const DEFAULT_SETTINGS = {
  format: 'mp4',
  quality: 'good',
  bitRate: null,
  range: null,
  calm: false,
} as const satisfies Partial<ExportSettings>;

/** How an export is stopped, and what it tells meanwhile. */
export interface ExportControl {
  readonly signal: AbortSignal;
  readonly onProgress: (share: number, message: string) => void;
}
