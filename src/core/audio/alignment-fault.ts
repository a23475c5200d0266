import { assertNever } from '../assert-never';
import type { Alignment } from './align';

type Refused = Exclude<Alignment, { kind: 'aligned' }>;

const clock = (seconds: number): string => `${seconds.toFixed(1)} s`;

/**
 * What is to be said where two recordings could not be aligned, and what to do about it.
 *
 * @param first name of the first recording
 * @param second name of the second
 */
export function alignmentFault(found: Refused, first: string, second: string): string {
  switch (found.kind) {
    case 'silent':
      return (
        `Nothing is heard in ${found.which === 'first' ? first : second}. ` +
        'Line it up by hand, by something that both show.'
      );
    case 'unsure':
      return (
        `${second} fits ${first} in several places, as it does where a melody repeats itself: ` +
        `${found.candidates.map(clock).join(', ')} after its beginning. Line it up by hand.`
      );
    case 'unrelated':
      return (
        `${first} and ${second} did not hear the same, or one of them hears it too faintly. ` +
        'Line them up by hand, by something that both show.'
      );
    default:
      return assertNever(found);
  }
}
