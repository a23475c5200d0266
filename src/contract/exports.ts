import type { Format, Quality } from '@/core/project/export-formats';
import type { FrameRate } from '@/core/time/ticks';
import type { JobStatus } from './jobs';
import { route, type Bytes } from './route';

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

/** Settings as they are asked for: some may lack. */
export type ExportRequest = Pick<ExportSettings, 'width' | 'height' | 'frameRate' | 'quality'> &
  Partial<ExportSettings>;

export interface ExportResult {
  readonly width: number;
  readonly height: number;
  readonly frames: number;
  /** Seconds. */
  readonly duration: number;
  readonly wallSeconds: number;
  readonly bytes: number;
}

export interface ExportView {
  readonly id: string;
  readonly name: string;
  readonly settings: ExportSettings;
  readonly status: JobStatus;
  readonly progress: number;
  readonly message: string;
  readonly result: ExportResult | null;
  readonly createdAt: string;
}

export const listExports = route<readonly ExportView[]>()('GET', '/api/projects/:id/exports');
export const requestExport = route<
  { readonly exportId: string; readonly jobId: string },
  ExportRequest
>()('POST', '/api/projects/:id/exports');
/** Stops an export. */
export const cancelExport = route()('POST', '/api/exports/:id');
export const deleteExport = route()('DELETE', '/api/exports/:id');
/** The file; with `download`, to be kept under the export's name. */
export const exportedFile = route<Bytes>()('GET', '/api/exports/:id/video');
