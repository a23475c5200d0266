import type { PrivateFound } from '@/core/private/log';
import type { FollowPath } from '@/core/callout/follow-path';
import type { Alignment } from '@/core/audio/align';
import type { WallEstimate } from '@/core/key/wall';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import type { ScreenSight } from '@/core/vision/screen-sight';
import { route } from './route';

/** What can be found out about a recording. */
export const ANALYSIS_NAMES = [
  'alignment',
  'onsets',
  'pointer',
  'private',
  'screen',
  'track',
  'wall',
] as const;
export type AnalysisName = (typeof ANALYSIS_NAMES)[number];
export const ANALYSIS_STATES = ['waiting', 'ready', 'failed'] as const;
export type AnalysisStatus = (typeof ANALYSIS_STATES)[number];

export type Provenance = 'recorded' | 'found' | 'corrected';

/** An analysis as the interface sees it. */
export interface AnalysisView {
  readonly id: string;
  readonly footageId: string;
  readonly kind: AnalysisName;
  readonly status: AnalysisStatus;
  /** Made by an earlier version of Vistum, which found it otherwise. */
  readonly outdated: boolean;
  readonly error: string | null;
  /** Where the result comes from: recorded with the footage, found in it, or mended by hand. */
  readonly provenance: Provenance | null;
  /** A few numbers. */
  readonly summary: Readonly<Record<string, unknown>>;
}

/** What is to be followed through a recording. */
export interface FollowTask {
  /** What was marked, in pixels of the recording. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** When it was, in milliseconds of the recording. */
  readonly ms: number;
  /** The time that is looked through. */
  readonly from: number;
  readonly to: number;
}

export const requestAnalysis = route<
  AnalysisView & { readonly jobId: string | null },
  {
    readonly kind: AnalysisName;
    readonly follow?: FollowTask;
    /** Words of one’s own are looked for beside what is private to everybody. */
    readonly words?: readonly string[];
    /** The recording that an alignment is with. */
    readonly alignWith?: string;
  }
>()('POST', '/api/footage/:id/analyses');
/** Where sounds begin in a recording: the bytes of `OnsetMeter`, as base64 (RFC 4648). */
export interface SoundOnsets {
  readonly onsets: string;
}

/** Private data that a recording shows. */
export interface PrivateData {
  readonly width: number;
  readonly height: number;
  /** How long the recording is, in milliseconds. */
  readonly length: number;
  readonly found: readonly PrivateFound[];
}

/** What each kind finds. */
export interface AnalysisResults {
  readonly alignment: Alignment;
  readonly onsets: SoundOnsets;
  readonly pointer: PointerTrack;
  readonly private: PrivateData;
  readonly screen: ScreenSight;
  /** Null where what was marked shows nothing that could be told again. */
  readonly track: FollowPath | null;
  /** Null where the recording shows no wall. */
  readonly wall: WallEstimate | null;
}

/** What an analysis found: JSON as its kind has it. */
export const readAnalysis = route<AnalysisResults[AnalysisName]>()('GET', '/api/analyses/:id');
export const cancelAnalysis = route()('DELETE', '/api/analyses/:id');
