import { Type, type Static } from '@sinclair/typebox';
import { FORMATS, QUALITIES } from '@/core/project/export-formats';
import { nullable, oneOf, Rate } from '@/core/schema/parts';
import type { JobStatus } from './jobs';
import { route, type Bytes } from './route';

export const ExportSettings = Type.Object({
  format: oneOf(FORMATS),
  width: Type.Number(),
  height: Type.Number(),
  frameRate: Rate,
  quality: oneOf(QUALITIES),
  bitRate: nullable(Type.Number(), {
    description:
      'Mean bit rate of the picture in Mbit/s, instead of a quality; null keeps the quality.',
  }),
  range: nullable(Type.Object({ start: Type.Number(), end: Type.Number() }), {
    description: 'Seconds of the timeline; null is all of it. A still shows the start.',
  }),
  calm: Type.Boolean({ description: 'Takes sensor noise out of presenters’ recordings.' }),
});
export type ExportSettings = Readonly<Static<typeof ExportSettings>>;

/** Settings as they are asked for: some may lack. */
export type ExportRequest = Pick<ExportSettings, 'width' | 'height' | 'frameRate' | 'quality'> &
  Partial<ExportSettings>;

export const ExportResult = Type.Object({
  width: Type.Number(),
  height: Type.Number(),
  frames: Type.Number(),
  duration: Type.Number({ description: 'Seconds.' }),
  wallSeconds: Type.Number(),
  bytes: Type.Number(),
  links: Type.Optional(
    Type.Number({ description: 'How many areas of the video can be pressed; not told for none.' }),
  ),
});
export type ExportResult = Readonly<Static<typeof ExportResult>>;

/** A stretch of an export in which something can be read that a cover is to hide. */
export const CoverFinding = Type.Object({
  cover: Type.String(),
  start: Type.Number({ description: 'Seconds of the timeline.' }),
  end: Type.Number(),
  frames: Type.Number(),
  worst: Type.Number({ description: 'The frame in which most can be read.' }),
  remedy: Type.String({ description: 'What to do about it, in a sentence.' }),
});
export type CoverFinding = Readonly<Static<typeof CoverFinding>>;

/** What came of a look under the covers of an export. */
export const ExportProof = Type.Object({
  findings: Type.Array(CoverFinding),
  covers: Type.Number({ description: 'How many covers there are.' }),
  checked: Type.Number({ description: 'How many of them could be held against what they hide.' }),
  fault: nullable(Type.String(), { description: 'Why it could not be done; null if it was.' }),
});
export type ExportProof = Readonly<Static<typeof ExportProof>>;

export interface ExportView {
  readonly id: string;
  readonly name: string;
  readonly settings: ExportSettings;
  readonly status: JobStatus;
  readonly progress: number;
  readonly message: string;
  /** Null until it is done. */
  readonly result: ExportResult | null;
  /** Null until somebody has looked under its covers. */
  readonly proof: ExportProof | null;
  /** ISO 8601. */
  readonly createdAt: string;
}

export const listExports = route<readonly ExportView[]>()('GET', '/api/projects/:id/exports');
export const requestExport = route<
  { readonly exportId: string; readonly jobId: string },
  ExportRequest
>()('POST', '/api/projects/:id/exports');
/** Stops an export. */
export const cancelExport = route()('POST', '/api/exports/:id');
/** Has the covers of an export looked under. */
export const proofExport = route()('POST', '/api/exports/:id/proof');
export const cancelProof = route()('DELETE', '/api/exports/:id/proof');
export const deleteExport = route()('DELETE', '/api/exports/:id');
/** The file; with `download`, to be kept under the export's name. */
export const readExported = route<Bytes>()('GET', '/api/exports/:id/video');
/** Where a video can be pressed, a `VideoLinks`, to be kept beside it under the export's name. */
export const readExportLinks = route<Bytes>()('GET', '/api/exports/:id/links');
