import type { KeptTake } from '@/core/edit/take';
import type { EndReason, TakeKind, TrackName } from '@/core/take/take';
import type { TakeSetup } from '@/core/take/setup';
import { address, route, type Bytes } from './route';

/** One that is `closing` has ended; its tracks are being finished. */
export type TakeStatus = 'recording' | 'closing' | 'stopped' | 'kept' | 'discarded';

/** A take as the interface knows it. */
export interface TakeView {
  readonly id: string;
  readonly stepId: string | null;
  readonly kind: TakeKind;
  readonly number: number;
  readonly status: TakeStatus;
  /** Whether a tab is recording it now. */
  readonly live: boolean;
  readonly reason: EndReason | null;
  readonly seconds: number;
  readonly setup: TakeSetup;
  /** The footage that was made of its tracks. */
  readonly footage: Readonly<Partial<Record<TrackName, string>>>;
  /** ISO 8601. */
  readonly madeAt: string;
}

/** A take that a tab begins, under an id of its own choice. */
export interface TakeBegun {
  readonly id: string;
  readonly stepId: string | null;
  readonly kind: TakeKind;
  readonly setup: TakeSetup;
}

/** All that the project needs to place a take. */
export interface TakePlacement extends KeptTake {
  readonly takeId: string;
  readonly setup: TakeSetup;
}

/** How much of a take's part has arrived, and the disk's free bytes. */
export interface PieceTaken {
  readonly size: number;
  readonly free: number;
}

export const listTakes = route<readonly TakeView[]>()('GET', '/api/projects/:id/takes');
export const beginTake = route<TakeView, TakeBegun>()('POST', '/api/projects/:id/takes');
/** A take, with the bytes of each part that arrived. */
export const viewTake = route<TakeView & { readonly sizes: Readonly<Record<string, number>> }>()(
  'GET',
  '/api/takes/:id',
);
export const changeTake = route<TakeView, { readonly discarded: boolean }>()(
  'PATCH',
  '/api/takes/:id',
);
/** Ends a take; it is `closing` until its tracks are finished. */
export const closeTake = route<TakeView, { readonly reason: EndReason }>()(
  'POST',
  '/api/takes/:id/close',
);
/** Makes footage of a take. */
export const keepTake = route<TakePlacement>()('POST', '/api/takes/:id/keep');
/** What a part holds; that of `events` is a line of JSON for each. */
export const takePart = route<Bytes>()('GET', '/api/takes/:id/tracks/:name');
/** The address of a take's part. */
export const takeUrl = (id: string, name: TrackName | 'events'): string =>
  address(takePart, { id, name });
/** Adds a piece at `upload-offset`. */
export const addPiece = route<PieceTaken, Blob>()('PATCH', '/api/takes/:id/tracks/:name');
