import type { LayoutKind } from '../layout/built-in';
import type { Point } from '../schema/parts';

/** What is recorded of one source; the name of its file in the take. */
export const TRACK_NAMES = ['screen', 'camera', 'voice', 'computer'] as const;
export type TrackName = (typeof TRACK_NAMES)[number];

/** What a take is for. */
export const TAKE_KINDS = ['all', 'voice', 'screen'] as const;
export type TakeKind = (typeof TAKE_KINDS)[number];

/** Why a take ended. */
export const END_REASONS = [
  'stopped',
  'time',
  'sharing ended',
  'unplugged',
  'disk full',
  'server away',
  'crashed',
  'failed',
] as const;
export type EndReason = (typeof END_REASONS)[number];

interface At {
  /** Milliseconds of the take's clock, pauses not counted. */
  readonly t: number;
}

/** A line that was drawn by hand. */
interface DrawnStroke {
  readonly kind: 'stroke';
  readonly tool: 'pen' | 'marker';
  readonly width: number;
  readonly color: string;
}

export const FIGURES = ['arrow', 'box', 'ellipse'] as const;

/** A figure that was drawn from one point to another. */
interface DrawnFigure {
  readonly kind: 'shape';
  readonly shape: (typeof FIGURES)[number];
  readonly from: Point;
  readonly to: Point;
  readonly width: number;
  readonly color: string;
}

/**
 * One line of a take's data: what was done live, as data. Written while recording, one JSON value a
 * line, so that whatever was written before a crash can be read.
 */
export type TakeEvent = At &
  (
    | { readonly type: 'pointer'; readonly x: number; readonly y: number }
    | { readonly type: 'down' | 'up'; readonly button: number }
    | { readonly type: 'wheel'; readonly dy: number }
    | { readonly type: 'key'; readonly key: string }
    | { readonly type: 'shape'; readonly shape: string }
    /** Recording went on after a pause. */
    | { readonly type: 'join' }
    | { readonly type: 'mark'; readonly name: string }
    | { readonly type: 'layout'; readonly kind: LayoutKind }
    /** A closer view was asked for here; `null` asks for the whole again. */
    | {
        readonly type: 'closer';
        readonly x: number;
        readonly y: number;
        readonly magnification: number;
      }
    | { readonly type: 'whole' }
    | {
        readonly type: 'stroke';
        readonly id: string;
        readonly drawn: DrawnStroke;
        readonly points: readonly (readonly [number, number, number])[];
      }
    | { readonly type: 'figure'; readonly id: string; readonly drawn: DrawnFigure }
    | {
        readonly type: 'words';
        readonly id: string;
        readonly text: string;
        readonly x: number;
        readonly y: number;
        readonly color: string;
        readonly size: number;
      }
    | { readonly type: 'erase'; readonly ids: readonly string[] }
    /**
     * How a track's clock runs against the take's: `take = device * rate + offset`, ms. Repeated
     * while recording; the last one counts.
     */
    | {
        readonly type: 'clock';
        readonly track: TrackName;
        readonly offset: number;
        readonly rate: number;
        readonly pieces: number;
        readonly dropped: number;
      }
  );
