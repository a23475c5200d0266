import { appearanceIn, BLOCK } from '../vision/follow/appearance';
import { correlation } from '../vision/follow/likeness';
import type { Luma } from '../vision/luma';
import { intersect, type Rect } from '../scale/rect';

/**
 * A square whose detail is still there, to be read or to be sharpened again, correlates by this.
 * Letters 17 pixels high do so up to a blur of 8 or blocks of 10 pixels, and can be guessed so far.
 */
const READABLE = 0.45;
/** With so much of it readable, a place leaks: a letter or two of an address. */
const LEAKS = 0.1;

/**
 * The share of a place's squares that show anything of which the detail is still there, 0 to 1. What
 * counts is the pattern and not its contrast: a faint one can be raised, and a blur that leaves the
 * pattern can be undone by sharpening.
 *
 * @param bare the picture without anything over the recording
 * @param shown the picture that is shown, of the same size
 * @param rect the place, in their pixels
 */
export function readableShare(bare: Luma, shown: Luma, rect: Rect): number {
  const { width, height } = bare;
  const left = Math.max(0, Math.floor(rect.x));
  const top = Math.max(0, Math.floor(rect.y));
  const within = intersect(rect, { x: 0, y: 0, width, height });
  const w = Math.floor(within.x + within.width) - left;
  const h = Math.floor(within.y + within.height) - top;
  if (w < BLOCK / 2 || h < BLOCK / 2) return 0;
  const x = Math.min(left, Math.max(0, width - BLOCK));
  const y = Math.min(top, Math.max(0, height - BLOCK));
  const { blocks } = appearanceIn(bare, {
    ...{ x, y },
    ...{ width: Math.max(BLOCK, w), height: Math.max(BLOCK, h) },
  });
  if (!blocks.length) return 0;
  const readable = blocks.filter(
    (block) => Math.abs(correlation(block, shown, x, y) ?? 0) >= READABLE,
  );
  return readable.length / blocks.length;
}

/** Whether a place of which so much is readable leaks what it shows. */
export const leaks = (share: number): boolean => share >= LEAKS;

/** A place of an exported picture at which something is readable that a cover is to hide. */
export interface LeakSpot {
  readonly frame: number;
  readonly coverId: string;
  /** In pixels of the export. */
  readonly rect: Rect;
  readonly share: number;
  /** Whether the cover lies over it: then it is too weak. */
  readonly covered: boolean;
}

/** A stretch of an export in which something leaks. */
export interface Leak {
  readonly coverId: string;
  /** Frames of the export, from the first to the last. */
  readonly from: number;
  readonly to: number;
  /** How many of them. */
  readonly frames: number;
  readonly covered: boolean;
  /** Where most is readable. */
  readonly worst: LeakSpot;
}

/** Frames no further from each other than this are one stretch. */
const TOGETHER = 15;

/** The stretches in which something leaks, in order of time; each cover and way has its own. */
export function leakStretches(spots: readonly LeakSpot[]): Leak[] {
  const found: Leak[] = [];
  for (const spot of [...spots].sort((a, b) => a.frame - b.frame)) {
    const at = found.findLastIndex(
      (one) =>
        one.coverId === spot.coverId &&
        one.covered === spot.covered &&
        spot.frame - one.to <= TOGETHER,
    );
    const there = found[at];
    const { coverId, frame, covered } = spot;
    if (!there) found.push({ coverId, covered, from: frame, to: frame, frames: 1, worst: spot });
    else
      found[at] = {
        ...there,
        to: frame,
        frames: there.frames + (frame > there.to ? 1 : 0),
        worst: spot.share > there.worst.share ? spot : there.worst,
      };
  }
  return found;
}
