import { OnsetCorrelation, windowsOf } from './onset-correlation';
import { vertex } from './vertex';
import { ONSETS_PER_SECOND } from './onsets';

/** How one recording lies against another. */
export interface SoundMatch {
  /** When the second begins, in seconds after the first; negative before it. */
  readonly offset: number;
  /** How much the best place stands out among all, in standard deviations. */
  readonly prominence: number;
}

/** A match that stands out less may be chance. */
const LEAST_PROMINENCE = 9;
/** It stands out so much more than the next best place elsewhere. */
const LEAST_LEAD = 1.25;
/** Places nearer than this are the same one, in windows. */
const SAME = 20;
/** Two recordings have so much in common at least, in seconds, or half of the shorter one. */
const LEAST_COMMON = 8;

/**
 * Finds how a recording lies against another by what both heard, from where sounds begin in each
 * (`OnsetMeter`): the distance at which their onsets agree best, to a few milliseconds, and as if
 * both clocks ran alike. `alignSounds` takes longer and finds both.
 *
 * @param a onsets of the first
 * @param b onsets of the second
 * @returns null where no distance stands out: they did not hear the same
 */
export function matchBySound(a: Uint8Array, b: Uint8Array): SoundMatch | null {
  const [la, lb] = [windowsOf(a), windowsOf(b)];
  const least = Math.min(LEAST_COMMON * ONSETS_PER_SECOND, Math.min(la, lb) / 2);
  if (least < 1) return null;
  const { first, scores, mean, spread } = new OnsetCorrelation(a, lb).scores(b, least);
  let best = 0;
  for (let i = 1; i < scores.length; i++) if (scores[i]! > scores[best]!) best = i;
  let next = -Infinity;
  for (let i = 0; i < scores.length; i++)
    if (Math.abs(i - best) > SAME) next = Math.max(next, scores[i]!);
  const prominence = spread > 0 ? (scores[best]! - mean) / spread : 0;
  if (prominence < LEAST_PROMINENCE || scores[best]! < next * LEAST_LEAD) return null;
  return { offset: (first + best + vertex(scores, best)) / ONSETS_PER_SECOND, prominence };
}
