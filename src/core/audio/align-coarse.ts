import { OnsetCorrelation, windowsOf, type LagScores } from './onset-correlation';
import { vertex } from './vertex';
import { ONSET_BANDS, ONSETS_PER_SECOND } from './onsets';
import type { ClockPoint } from './clock-line';

/** Where the second of two recordings might lie against the first. */
export interface Place {
  /** Distances where pieces agreed. */
  readonly points: readonly ClockPoint[];
  /** How far they stood out, all together, in standard deviations. */
  readonly support: number;
}

/** Length of the pieces that are looked for one by one, in seconds. */
const PIECE = 40;
/** So many at most, spread evenly. */
const MOST_PIECES = 24;
/** A piece has so much in common with the other recording at least, in seconds. */
const LEAST_COMMON = 8;
/** So many places of each piece are kept. */
const KEPT = 4;
/** What stands out less is not kept, in standard deviations. */
const LEAST_PROMINENCE = 5;
/** Places nearer than this are the same one, in windows. */
const SAME = 20;
/** Clocks differ by no more, in seconds a second. */
export const STEEPEST = 400e-6;
/**
 * Distances of two pieces of the same place differ by no more beside what the clocks do, seconds.
 */
export const LOOSE = 0.02;

interface Candidate extends ClockPoint {
  readonly piece: number;
  readonly prominence: number;
}

function highest({ first, scores, mean, spread }: LagScores) {
  const found: { lag: number; prominence: number }[] = [];
  if (spread <= 0) return found;
  const left = scores.slice();
  while (found.length < KEPT) {
    let best = 0;
    for (let i = 1; i < left.length; i++) if (left[i]! > left[best]!) best = i;
    const prominence = (left[best]! - mean) / spread;
    if (!(prominence >= LEAST_PROMINENCE)) break;
    found.push({ lag: first + best + vertex(scores, best), prominence });
    left.fill(-Infinity, Math.max(0, best - SAME), best + SAME + 1);
  }
  return found;
}

/**
 * Places where the second of two recordings might lie against the first, the best first: pieces of
 * the shorter one are looked for in the longer one by where sounds begin, and places are told on
 * which several agree, as far as two clocks may differ.
 *
 * @param a onsets of the first (`OnsetMeter`)
 * @param b onsets of the second
 * @param report is told how far it is, 0 to 1
 */
export function alignCoarsely(
  a: Uint8Array,
  b: Uint8Array,
  report: (share: number) => void = () => undefined,
): readonly Place[] {
  const turned = windowsOf(b) > windowsOf(a);
  const [long, short] = turned ? [b, a] : [a, b];
  const count = windowsOf(short);
  const length = count <= 1.5 * PIECE * ONSETS_PER_SECOND ? count : PIECE * ONSETS_PER_SECOND;
  const least = Math.min(LEAST_COMMON * ONSETS_PER_SECOND, length / 2);
  if (least < 1 || !windowsOf(long)) return [];
  const pieces = Math.max(1, Math.min(MOST_PIECES, Math.round(count / length)));
  const correlation = new OnsetCorrelation(long, length);
  const candidates: Candidate[] = [];
  for (let piece = 0; piece < pieces; piece++) {
    const start = pieces > 1 ? Math.round(((count - length) * piece) / (pieces - 1)) : 0;
    const part = short.subarray(start * ONSET_BANDS, (start + length) * ONSET_BANDS);
    for (const { lag, prominence } of highest(correlation.scores(part, least))) {
      const middle = start + length / 2;
      const distance = (lag - start) / ONSETS_PER_SECOND;
      const at = middle / ONSETS_PER_SECOND;
      candidates.push({
        ...{ piece, prominence },
        ...(turned ? { at: at + distance, offset: -distance } : { at, offset: distance }),
      });
    }
    report((piece + 1) / pieces);
  }
  return placesOf(candidates);
}

const agree = (a: ClockPoint, b: ClockPoint): boolean =>
  Math.abs(a.offset - b.offset) <= LOOSE + STEEPEST * Math.abs(a.at - b.at);

function placesOf(candidates: readonly Candidate[]): readonly Place[] {
  const places: (Place & { readonly led: Candidate })[] = [];
  for (const led of candidates) {
    const best = new Map<number, Candidate>();
    for (const other of candidates) {
      const before = best.get(other.piece);
      if (agree(led, other) && other.prominence > (before?.prominence ?? 0))
        best.set(other.piece, other);
    }
    const points = [...best.values()];
    places.push({ led, points, support: points.reduce((sum, p) => sum + p.prominence, 0) });
  }
  places.sort((one, other) => other.support - one.support);
  const apart: typeof places = [];
  for (const place of places)
    if (!apart.some(({ led }) => agree(led, place.led))) apart.push(place);
  return apart;
}
