import { ticksToSeconds, type Ticks } from '../time/ticks';
import type { Clip } from './model';
import type { FootageFacts } from './sources';

/*
 * Between a clip's time on the timeline and the time in its footage. A speed has at most three
 * decimals and a frame of the usual rates is a multiple of a thousand ticks, so that the way there
 * and back is exact on frames (to a tick at the 1000/1001 rates, and where a speed makes up for a
 * clock: that has six decimals).
 */

/** Clocks of recorders differ by less, in millionths. */
export const MOST_CLOCK = 500;

/**
 * The speed of a clip that makes up for its recording's clock.
 *
 * @param ppm how much longer the recording takes by the clock that counts, in millionths, less than
 * `MOST_CLOCK` either way
 */
export const clockSpeed = (ppm: number): number => Math.round(1e6 / (1 + ppm * 1e-6)) / 1e6;

/**
 * How much longer by the clock that counts a clip's recording takes, in millionths; null where its
 * speed makes up for no clock: one that a person sets has three decimals.
 */
export const clockOf = ({ speed }: Pick<Clip, 'speed'>): number | null =>
  speed !== 1 && Math.abs(speed - 1) < MOST_CLOCK * 1e-6 ? Math.round((1 / speed - 1) * 1e6) : null;

/** Slowest and quickest speed of a clip that is not frozen. */
export const SPEED_LIMITS = [0.1, 16] as const;

/** The speed of a clip as a person knows it: what makes up for a clock is none. */
export const ownSpeed = (clip: Pick<Clip, 'speed'>): number =>
  clockOf(clip) === null ? clip.speed : 1;

/** The timing of a clip: all that its times are worked out from. */
export type ClipTiming = Pick<Clip, 'start' | 'duration' | 'source' | 'speed'>;

/** First instant after a clip on the timeline. */
export const clipEnd = (clip: Pick<Clip, 'start' | 'duration'>): Ticks =>
  clip.start + clip.duration;

/**
 * Footage time that a clip shows at an instant of the timeline, also outside of the clip; a frozen
 * one always shows the same.
 */
export const sourceTime = (clip: ClipTiming, time: Ticks): Ticks =>
  clip.source + Math.round((time - clip.start) * clip.speed);

/** Milliseconds of its footage that a clip shows at an instant of the timeline. */
export const sourceMs = (clip: ClipTiming, time: Ticks): number =>
  ticksToSeconds(sourceTime(clip, time)) * 1000;

/** Footage time at which what a clip uses ends. */
export const sourceEnd = (clip: ClipTiming): Ticks => sourceTime(clip, clipEnd(clip));

/**
 * Instant of the timeline at which a clip would show a footage time. Not for a frozen clip, which
 * shows only one.
 */
export const timelineTime = (clip: ClipTiming, source: Ticks): Ticks =>
  clip.start + Math.round((source - clip.source) / clip.speed);

/**
 * Footage that is left before and after what a clip uses, in timeline ticks; without limit for
 * stills and frozen pictures.
 */
export function handles(
  clip: ClipTiming,
  footage: Pick<FootageFacts, 'kind' | 'duration'> | undefined,
): { before: Ticks; after: Ticks } {
  if (clip.speed === 0 || !footage || footage.kind === 'image')
    return { before: Infinity, after: Infinity };
  return {
    before: Math.floor(clip.source / clip.speed),
    after: Math.max(0, Math.floor((footage.duration - sourceEnd(clip)) / clip.speed)),
  };
}
