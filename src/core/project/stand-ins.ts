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
