import type { Framing } from '../project/model';
import { ticksToSeconds } from '../time/ticks';

/** What a person wants to know of all framings at a glance. */
export interface FramingSummary {
  readonly count: number;
  readonly movesAMinute: number;
  /** How long the one rests that rests shortest, in seconds; infinite without any. */
  readonly shortest: number;
}

/**
 * How many framings there are, how often the view moves and how long it rests at least.
 *
 * @param framings in order
 * @param seconds length of the project
 */
export function summarise(framings: readonly Framing[], seconds: number): FramingSummary {
  let moves = 0;
  let shortest = Infinity;
  for (const [i, f] of framings.entries()) {
    const joined = framings[i + 1]?.start === f.end;
    // Into each, and out of each that leads to no other and does not end at once.
    moves += joined || f.rampOut === 0 ? 1 : 2;
    const end = joined ? f.end : f.end - f.rampOut;
    shortest = Math.min(shortest, ticksToSeconds(end - f.start - f.rampIn));
  }
  return { count: framings.length, movesAMinute: (moves / Math.max(1, seconds)) * 60, shortest };
}
