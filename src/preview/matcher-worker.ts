import { expose } from 'comlink';
import { matchBySound } from '@/core/audio/match';
import type { HeardTogether } from '@/core/edit/arrange';

/** What was heard in a recording. */
export interface Heard {
  readonly id: string;
  /** Onsets, as base64. */
  readonly onsets: string;
}

/** Pairs are compared while there are no more recordings than this; of more, only the first. */
const MOST = 12;

const bytesOf = (base64: string): Uint8Array =>
  Uint8Array.from(atob(base64), (character) => character.charCodeAt(0));

/** Compares what recordings heard, away from the page's main thread. */
export class MatcherWorker {
  match(recordings: readonly Heard[]): readonly HeardTogether[] {
    const all = recordings.slice(0, MOST).map(({ id, onsets }) => ({ id, heard: bytesOf(onsets) }));
    return all.flatMap((one, i) =>
      all.slice(i + 1).flatMap((other) => {
        const found = matchBySound(one.heard, other.heard);
        return found ? [{ first: one.id, second: other.id, offset: found.offset }] : [];
      }),
    );
  }
}

expose(new MatcherWorker());
