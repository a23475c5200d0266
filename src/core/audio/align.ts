import { alignCoarsely, LOOSE, STEEPEST, type Place } from './align-coarse';
import { median } from '../median';
import { clockLine, type ClockLine } from './clock-line';
import { Comparison, type Clocks, type Measured, type ReadableSound } from './comparison';

/** What is known of how one recording lies against another. */
export type Alignment =
  | {
      readonly kind: 'aligned';
      /** When the second begins, in seconds after the first; negative before it. */
      readonly offset: number;
      /**
       * How much longer the second takes by the first one's clock, in millionths; 0 where that
       * can't be told from none.
       */
      readonly ppm: number;
      /** The share of what was compared that agrees, 0 to 1. */
      readonly confidence: number;
    }
  | {
      /** Several places are as good, as with a melody that repeats itself. */
      readonly kind: 'unsure';
      /** Offsets as above, the likeliest first. */
      readonly candidates: readonly number[];
    }
  | { readonly kind: 'silent'; readonly which: 'first' | 'second' }
  /** They did not hear the same. */
  | { readonly kind: 'unrelated' };

/** Onsets of the first and the second recording, and their sounds. */
export interface AlignedSounds {
  readonly onsets: readonly [Uint8Array, Uint8Array];
  readonly sounds: readonly [ReadableSound, ReadableSound];
}

/** So many pieces are compared at most. */
const MOST_PIECES = 60;
/** Length of a piece at first, when the clocks' drift smears it, and then, in seconds. */
const SHORT = 2;
const LONG = 4;
/**
 * Onsets may have told the place of an echo, which is weaker than what it is the echo of: the first
 * look goes so far, in seconds either way. Two places nearer than that are the same room.
 */
const FIRST_REACH = 0.3;
const THEN_REACH = 0.012;
/** Pieces whose delay stands out less say nothing, in standard deviations. */
const LEAST_HEIGHT = 5;
/** Delays so near a line lie on it, in seconds. */
const NEAR = 0.001;
/** The share of the pieces with sound that agree at least. */
const LEAST_AGREEING = 0.3;
/** And so many of them. */
const LEAST_PIECES = 3;
/** Of two places the better one has so many times as much. */
const LEAST_LEAD = 1.4;
/** A drift is told when it is so many times its standard error. */
const TOLD = 3;
/** Levels that are told from silence, as a step of an onset. */
const HEARD = 24;

const heard = (onsets: Uint8Array): boolean => onsets.some((step) => step >= HEARD);

interface Found {
  readonly line: ClockLine<Measured>;
  readonly compared: number;
}

const agreeing = ({ line }: Found): number => line.within.length;
/** How far what agrees stands out, all together. */
const strength = ({ line }: Found): number =>
  line.within.reduce((sum, { height }) => sum + height, 0);

/** Measures one of the places that the onsets told; null where too little agrees. */
function refine({ points }: Place, comparison: Comparison): Found | null {
  const first: Measured[] = [];
  for (const { at, offset } of points)
    for (const step of [-2, -1, 0, 1, 2]) {
      const found = comparison.measure(at + step * SHORT, SHORT, { offset, slope: 0 }, FIRST_REACH);
      if (found && found.height >= LEAST_HEIGHT) first.push(found);
    }
  const line: ClockLine = clockLine(first, NEAR, STEEPEST) ?? clockLine(points, LOOSE, STEEPEST)!;
  const [from, to] = comparison.common(line);
  // A drift that is not known to the end would lead away from what is looked for.
  const known = line.error * (to - from) < THEN_REACH / 2;
  const middle = median(line.within.map(({ offset }) => offset));
  return throughout(comparison, known ? line : { offset: middle, slope: 0 });
}

/** Measures all of what both have in common along a line; null where too little agrees. */
function throughout(comparison: Comparison, clocks: Clocks): Found | null {
  const [from, to] = comparison.common(clocks);
  const length = Math.min(LONG, (to - from) / LEAST_PIECES);
  if (length <= 0) return null;
  const pieces = Math.max(LEAST_PIECES, Math.min(MOST_PIECES, Math.floor((to - from) / length)));
  const points: Measured[] = [];
  let compared = 0;
  for (let i = 0; i < pieces; i++) {
    const at = from + length / 2 + ((to - from - length) * i) / (pieces - 1);
    const found = comparison.measure(at, length, clocks, THEN_REACH);
    if (!found) continue;
    compared++;
    if (found.height >= LEAST_HEIGHT) points.push(found);
  }
  const line = clockLine(points, NEAR, STEEPEST);
  if (!line || line.within.length < Math.max(LEAST_PIECES, compared * LEAST_AGREEING)) return null;
  return { line, compared };
}

/**
 * Finds how a recording lies against another by what both heard: first by where sounds begin in
 * pieces of them (`alignCoarsely`), then by the phases of up to 60 pieces each
 * (`PhaseCorrelation`), through which a line is laid that tells beginning and drift of the clocks.
 * Distances are exact to about a sample of 8 kHz where the sound is clear.
 *
 * @param report is told how far it is, 0 to 1
 */
export function alignSounds(
  { onsets: [a, b], sounds }: AlignedSounds,
  report: (share: number) => void = () => undefined,
): Alignment {
  if (!heard(a)) return { kind: 'silent', which: 'first' };
  if (!heard(b)) return { kind: 'silent', which: 'second' };
  const places = alignCoarsely(a, b, (share) => report(share * 0.7)).slice(0, 3);
  const comparison = new Comparison(...sounds);
  const found = places.flatMap((place, i) => {
    const refined = refine(place, comparison);
    report(0.7 + (0.3 * (i + 1)) / places.length);
    return refined ? [refined] : [];
  });
  found.sort((one, other) => strength(other) - strength(one));
  const [best, ...others] = found;
  if (!best) return { kind: 'unrelated' };
  const elsewhere = others.filter(
    ({ line }) => Math.abs(line.offset - best.line.offset) > FIRST_REACH,
  );
  if (elsewhere.some((other) => agreeing(best) < agreeing(other) * LEAST_LEAD))
    return { kind: 'unsure', candidates: [best, ...elsewhere].map(({ line }) => line.offset) };
  const { offset, slope, error, within } = best.line;
  const drifts = Math.abs(slope) >= TOLD * error;
  // Without a drift the middle of what was measured is the distance.
  const still = within.reduce((sum, p) => sum + p.offset, 0) / within.length;
  return {
    kind: 'aligned',
    offset: drifts ? offset : still,
    ppm: drifts ? slope * 1e6 : 0,
    confidence: agreeing(best) / best.compared,
  };
}
