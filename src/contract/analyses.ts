import type { PrivateFound } from '@/core/private/log';
import type { MatteFacts } from '@/core/project/sources';
import type { FacePath } from '@/core/face/follow';
import type { FaceBox } from '@/core/face/settle';
import type { FollowPath } from '@/core/callout/follow-path';
import type { Alignment } from '@/core/audio/align';
import type { WallEstimate } from '@/core/key/wall';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import type { ScreenSight } from '@/core/vision/screen-sight';
import { address, route, type Bytes } from './route';

/** What can be found out about a recording. */
export const ANALYSIS_NAMES = [
  'alignment',
  'face',
  'face-path',
  'matte',
  'onsets',
  'pointer',
  'pointer-again',
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

/** Where the pointer is at a time, and in which stretch it is to be found again. */
export interface AgainTask {
  /** Its tip, in pixels of the recording. */
  readonly x: number;
  readonly y: number;
  /** When it is there, in milliseconds of the recording. */
  readonly ms: number;
  /** The stretch. */
  readonly from: number;
  readonly to: number;
}

export const MATTE_METHODS = ['person', 'shot'] as const;

/** Whose matte is to be made, and by what they are told. */
export interface MatteTask {
  readonly method: MatteFacts['method'];
  /** The stretch without them, in ticks of the recording; where that is what tells them. */
  readonly shot: MatteFacts['shot'];
}

/** What an analysis of a matte tells of it. */
export interface MatteSummary extends MatteTask {
  /** Of its pictures, in pixels. */
  readonly width: number;
  readonly height: number;
  /** Share of the pictures in which somebody is seen. */
  readonly seen: number;
  /** Share of the background that was ever seen without them. */
  readonly behind: number;
}

export const requestAnalysis = route<
  AnalysisView & { readonly jobId: string | null },
  {
    readonly kind: AnalysisName;
    readonly follow?: FollowTask;
    readonly again?: AgainTask;
    /** Words of one’s own are looked for beside what is private to everybody. */
    readonly words?: readonly string[];
    /** The recording that an alignment is with. */
    readonly alignWith?: string;
    readonly matte?: MatteTask;
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
  /** Null where hardly any picture shows one. */
  readonly face: FaceBox | null;
  readonly 'face-path': { readonly face: FaceBox; readonly path: FacePath } | null;
  /** What is found is a video. */
  readonly matte: null;
  readonly onsets: SoundOnsets;
  readonly pointer: PointerTrack;
  /** `[ms, x, y]`, times ascending; null where it was not found where it was said to be. */
  readonly 'pointer-again': {
    readonly points: readonly (readonly [number, number, number])[];
  } | null;
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
/** A matte as a video, whose luma is opacity. */
export const readMatte = route<Bytes>()('GET', '/api/analyses/:id/matte');
/** The address of a matte. */
export const matteUrl = (id: string): string => address(readMatte, { id });

/** The mattes among what was found out, by their recordings. */
export function mattesAmong(
  found: readonly Pick<AnalysisView, 'id' | 'footageId' | 'kind' | 'status' | 'summary'>[],
): Record<string, MatteFacts[]> {
  const mattes: Record<string, MatteFacts[]> = {};
  for (const { id, footageId, kind, status, summary } of found) {
    const { method, shot = null, width, height } = summary as Partial<MatteSummary>;
    if (kind === 'matte' && status === 'ready' && method && width && height)
      (mattes[footageId] ??= []).push({ id, method, shot, width, height });
  }
  return mattes;
}
