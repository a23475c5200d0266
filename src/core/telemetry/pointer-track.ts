/**
 * A pointer track: where the pointer was on the captured screen, and what was
 * pressed. Times are milliseconds from the first frame of its recording,
 * positions are pixels of that recording. `docs/formats.md` describes the file.
 */
export interface PointerTrack {
  readonly format: 'vistum-pointer';
  readonly version: 1;
  readonly width: number;
  readonly height: number;
  /** False when the recording does not show the pointer, so that it is drawn from this track. */
  readonly inPicture?: boolean;
  /** `[ms, x, y]`, times ascending. */
  readonly samples: readonly PointerSample[];
  /** Times ascending. */
  readonly events: readonly PointerEvent[];
}

export type PointerSample = readonly [ms: number, x: number, y: number];

export const POINTER_EVENT_TYPES = ['down', 'up', 'wheel', 'key', 'shape', 'join'] as const;
export type PointerEventType = (typeof POINTER_EVENT_TYPES)[number];

export interface PointerEvent {
  readonly t: number;
  readonly type: PointerEventType;
  /** Mouse button of a `down` or `up`: 0 main, 1 middle, 2 secondary. */
  readonly button?: number;
  /** Vertical travel of a `wheel`, in pixels, down positive. */
  readonly dy?: number;
  /** What a `key` was, as the web platform names it (`a`, `Enter`). */
  readonly key?: string;
  /** What the pointer looked like from here on (`arrow`, `text`). */
  readonly shape?: string;
}
