import type { FrameRate } from '../time/ticks';

/**
 * Waveform levels kept for each second of a recording: ingest makes them, the timeline draws them.
 */
export const PEAKS_PER_SECOND = 50;

const THUMB_EVERY = 2;
const MOST_THUMBS = 120;

/**
 * How many small views stand side by side in the strip of a recording of a length in seconds: one
 * every two, 120 at most; one for a still (0 s).
 */
export const thumbCount = (seconds: number): number =>
  Math.max(1, Math.min(MOST_THUMBS, Math.ceil(seconds / THUMB_EVERY)));

/**
 * While a proxy is being made its pieces can be had, each of so many seconds from one key frame to
 * the next: the first of a piece is the first picture that does not begin before its time.
 */
export const PIECE_SECONDS = 10;

/** A piece of a proxy, and where in it a time lies. */
export interface PieceTime {
  readonly index: number;
  /** Seconds from the piece's first picture. */
  readonly seconds: number;
}

/**
 * Where a time of a recording lies among the pieces of its proxy.
 *
 * @param seconds from the start of the recording
 * @param rate of the recording; pieces begin on its pictures
 */
export function pieceAt(seconds: number, rate: FrameRate): PieceTime {
  const begins = (index: number) => {
    const frame = Math.ceil((index * PIECE_SECONDS * rate.num) / rate.den - 1e-6);
    return (frame * rate.den) / rate.num;
  };
  const near = Math.max(0, Math.floor(seconds / PIECE_SECONDS));
  const index = near > 0 && begins(near) > seconds + 1e-6 ? near - 1 : near;
  return { index, seconds: Math.max(0, seconds - begins(index)) };
}
