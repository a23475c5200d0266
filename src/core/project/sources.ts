import type { KeyMethod } from '../key/model';
import type { PointerTrack } from '../telemetry/pointer-track';
import type { ScreenSight } from '../vision/screen-sight';
import type { FrameRate, Ticks } from '../time/ticks';

export const ROLES = ['screen', 'presenter', 'voice', 'computer', 'music', 'still'] as const;
export type Role = (typeof ROLES)[number];

export type FootageKind = 'video' | 'audio' | 'image';

/** What the project needs to know of a footage file; the file itself is never touched. */
export interface FootageFacts {
  readonly id: string;
  readonly name: string;
  readonly kind: FootageKind;
  readonly role: Role;
  /** As shown: after rotation metadata. 0 for sound. */
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate | null;
  /** Ticks; 0 for a still, which lasts as long as one wants. */
  readonly duration: Ticks;
  readonly hasVideo: boolean;
  readonly hasAudio: boolean;
}

/** All that stands beside the document: what its footage is, and the pointer tracks. */
export interface Sources {
  readonly footage: Readonly<Record<string, FootageFacts>>;
  readonly pointers: Readonly<Record<string, PointerTrack>>;
  /** What was found in the pictures of screen recordings, as far as they were looked through. */
  readonly sights?: Readonly<Record<string, ScreenSight>>;
  /** Mattes that were made, by the ids of their recordings. */
  readonly mattes?: Readonly<Record<string, readonly MatteFacts[]>>;
  /** Recordings that the preview can show and play in parts only by now. */
  readonly preparing?: Readonly<Record<string, Preparing>>;
}

/** A matte that was made of a recording: a video whose luma is opacity. */
export interface MatteFacts {
  /** The analysis that made it. */
  readonly id: string;
  readonly method: Exclude<KeyMethod, 'wall'>;
  /** The stretch without the presenter that it was made by, in ticks of the recording. */
  readonly shot: { readonly start: Ticks; readonly end: Ticks } | null;
  /** Of its pictures, in pixels. */
  readonly width: number;
  readonly height: number;
}

/** What there is, of a recording that is still being prepared, to show it and play it by. */
export interface Preparing {
  /** Pieces of its proxy from the first on. */
  readonly pieces: number;
  readonly sound: boolean;
}

export const NO_SOURCES: Sources = { footage: {}, pointers: {} };

/**
 * Footage by an id from a document; null for what every object has by itself, such as
 * `constructor`.
 */
export const footageOf = ({ footage }: Sources, id: string): FootageFacts | null =>
  Object.hasOwn(footage, id) ? footage[id]! : null;
