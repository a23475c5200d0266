/**
 * Time as a whole count of ticks. 705 600 000 a second is divisible by every
 * usual frame rate (24 to 120, and the 1000/1001 rates) and sample rate, so
 * that an edit never rounds. Seconds appear only at the edges.
 */
export type Ticks = number;

export const TICKS_PER_SECOND = 705_600_000;

/** Nearest tick to a time in seconds. */
export const secondsToTicks = (seconds: number): Ticks => Math.round(seconds * TICKS_PER_SECOND);

/** Seconds of a count of ticks; exact to the double nearest. */
export const ticksToSeconds = (ticks: Ticks): number => ticks / TICKS_PER_SECOND;

/** A frame rate as a fraction, frames a second: 30000/1001 is 29.97. */
export interface FrameRate {
  readonly num: number;
  readonly den: number;
}

/** Frames a second as a number. */
export const framesPerSecond = (rate: FrameRate): number => rate.num / rate.den;

/**
 * Length of one frame in ticks, rounded where a rate does not divide the tick (none of the usual
 * ones).
 */
export const frameDuration = (rate: FrameRate): Ticks =>
  Math.round((TICKS_PER_SECOND * rate.den) / rate.num);

/** Index of the frame shown at a time: the last one that begins at or before it. */
export const frameAt = (time: Ticks, rate: FrameRate): number =>
  Math.floor(time / frameDuration(rate));

/** Start of a frame. */
export const frameStart = (index: number, rate: FrameRate): Ticks => index * frameDuration(rate);

/** The frame boundary nearest to a time. */
export const snapToFrame = (time: Ticks, rate: FrameRate): Ticks =>
  Math.round(time / frameDuration(rate)) * frameDuration(rate);

const NTSC = [24, 30, 48, 60, 120];

/**
 * The usual rate nearest to a measured one, as an exact fraction: 29.97 becomes
 * 30000/1001. An unusual rate is kept to a thousandth.
 *
 * @throws RangeError when the rate is not between 1 and 240.
 */
export function rateFromNumber(fps: number): FrameRate {
  if (!(fps >= 1 && fps <= 240)) throw new RangeError('A frame rate lies between 1 and 240 fps.');
  for (const whole of NTSC)
    if (Math.abs(fps - (whole * 1000) / 1001) < 0.005) return { num: whole * 1000, den: 1001 };
  if (Math.abs(fps - Math.round(fps)) < 0.005) return { num: Math.round(fps), den: 1 };
  return { num: Math.round(fps * 1000), den: 1000 };
}
