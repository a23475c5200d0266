import { clipEnd, sourceTime } from '@/core/project/clip-time';
import type { Clip } from '@/core/project/model';

/** The range of a clip's level line, in dB: 0 dB lies a third from the top. */
export const LEVELS = { top: 12, bottom: -36 } as const;

/** Where a level lies on a line of a height in pixels. */
export const toY = (dB: number, height: number): number =>
  ((LEVELS.top - Math.min(LEVELS.top, Math.max(LEVELS.bottom, dB))) /
    (LEVELS.top - LEVELS.bottom)) *
  height;

/** The level at a place of the line; at the foot of the clip the sound is gone. */
export const toLevel = (y: number, height: number): number =>
  y >= height ? -96 : LEVELS.top - (y / height) * (LEVELS.top - LEVELS.bottom);

/** The level points that lie within a clip, with their places in its list. */
export function pointsWithin(clip: Clip) {
  const [from, to] = [sourceTime(clip, clip.start), sourceTime(clip, clipEnd(clip))];
  return clip.speed
    ? clip.envelope
        .map(([time, dB], index) => ({ time, dB, index }))
        .filter((p) => p.time >= from && p.time <= to)
    : [];
}
