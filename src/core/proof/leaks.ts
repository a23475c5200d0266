import { appearanceOf, BLOCK } from '../vision/follow/appearance';
import { resized } from '../vision/follow/between';
import type { Luma } from '../vision/luma';
import { intersect, type Rect } from '../scale/rect';
import { likenessOf, matchAt, remainsOf, together, type PatternMatch } from './pattern';

/** A square of which the pattern correlates by this can be read. */
const READABLE = 0.45;
/**
 * What remains of a pattern is lost in the rounding of samples below half a grey level. From there on
 * a blur can be undone, and letters be guessed from the cells that they were made into; the place as
 * a whole correlates with it by more than chance then.
 */
const REMAINS = { grey: 0.5, likeness: 0.12 };
/** Nothing can be read in what is narrower, in pixels. */
const LEAST_SIDE = 4;
/** With so much of it readable, a place leaks: a letter or two of an address. */
const LEAKS = 0.1;

/**
 * The share of a place's squares that show anything of which the detail is still there, 0 to 1; where
 * only the place as a whole tells, how like it is. What counts is the pattern and not its contrast: a
 * faint one can be raised, and a blur that leaves the pattern can be undone by sharpening.
 *
 * @param bare the picture without anything over the recording
 * @param shown the picture that is shown, of the same size
 * @param rect the place, in their pixels
 */
export function readableShare(bare: Luma, shown: Luma, rect: Rect): number {
  const part = intersect(rect, { x: 0, y: 0, width: bare.width, height: bare.height });
  const least = Math.min(part.width, part.height);
  if (least < LEAST_SIDE) return 0;
  // What is lower than a square is looked at enlarged: around it lies what nobody hides.
  const scale = Math.max(1, BLOCK / least);
  const [w, h] = [Math.ceil(part.width * scale), Math.ceil(part.height * scale)];
  const enlarged = (picture: Luma): Luma => ({
    ...{ data: resized(picture, part, w, h), stride: w, width: w, height: h },
  });
  const [own, there] = [enlarged(bare), enlarged(shown)];
  const matches = appearanceOf(own.data, w, h).blocks.map(({ x, y }) => matchAt(own, there, x, y));
  const remains = (match: PatternMatch) => remainsOf(match) >= REMAINS.grey;
  const readable = matches.filter((match) => remains(match) && likenessOf(match) >= READABLE);
  const share = readable.length / Math.max(1, matches.length);
  const whole = together(matches);
  const likeness = remains(whole) ? likenessOf(whole) : 0;
  return Math.max(share, likeness >= REMAINS.likeness ? likeness : 0);
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
