import type { FootageFacts } from '../project/sources';
import { secondsToTicks, type Ticks } from '../time/ticks';

/** Two recordings that heard the same: when the second begins, in seconds after the first. */
export interface HeardTogether {
  readonly first: string;
  readonly second: string;
  readonly offset: number;
}

/** Where recordings that came together are to begin. */
export interface Arrangement {
  readonly parts: readonly { readonly footageId: string; readonly at: Ticks }[];
  /** Those that lie where their sound fits another's. */
  readonly linedUp: readonly string[];
}

type Recording = Pick<FootageFacts, 'id' | 'role' | 'kind' | 'duration' | 'hasVideo'>;

/** Whether it begins where the tutorial does, whatever else there is. */
const isUnderAll = ({ role }: Recording): boolean => role === 'music';

/** Recordings that hang together by what they heard, with each one's start in its group. */
function groupsOf(
  recordings: readonly Recording[],
  heard: readonly HeardTogether[],
): Map<string, number>[] {
  const groups: Map<string, number>[] = [];
  const placed = new Set<string>();
  for (const { id } of recordings) {
    if (placed.has(id)) continue;
    const group = new Map([[id, 0]]);
    // Each brings in those that it heard something together with.
    for (const [one, start] of group)
      for (const { first, second, offset } of heard) {
        if (first === one && !group.has(second)) group.set(second, start + offset);
        if (second === one && !group.has(first)) group.set(first, start - offset);
      }
    for (const one of group.keys()) placed.add(one);
    groups.push(group);
  }
  return groups;
}

/**
 * Arranges recordings that came together for an empty timeline. Those that heard the same lie where
 * their sounds fit; a screen recording and one of the presenter without that begin together, being
 * made together most likely; what else there is follows one after the other, in the order given.
 * Music begins at the start.
 *
 * @param still length of a picture that does not move
 */
export function arrangeRecordings(
  recordings: readonly Recording[],
  heard: readonly HeardTogether[],
  still: Ticks,
): Arrangement {
  const sequence = recordings.filter((r) => !isUnderAll(r));
  const known = new Map(sequence.map((r) => [r.id, r]));
  const among = heard.filter(({ first, second }) => known.has(first) && known.has(second));
  const lengthOf = (id: string): Ticks => {
    const { kind, duration } = known.get(id)!;
    return kind === 'image' ? still : duration;
  };
  // One of each role, and nothing tells how they lie: they were made in one go.
  const roles = new Set(sequence.map(({ role }) => role));
  const moving = sequence.filter(({ kind }) => kind !== 'image');
  const together = roles.size === sequence.length && moving.length === sequence.length;
  const parts: { footageId: string; at: Ticks }[] = [];
  const linedUp: string[] = [];
  let begin = 0;
  for (const group of groupsOf(sequence, among)) {
    const earliest = Math.min(...group.values());
    let end = begin;
    for (const [footageId, start] of group) {
      const at = begin + secondsToTicks(start - earliest);
      parts.push({ footageId, at });
      end = Math.max(end, at + lengthOf(footageId));
    }
    if (group.size > 1) linedUp.push(...group.keys());
    if (!together) begin = end;
  }
  const music = recordings.filter(isUnderAll);
  let at = 0;
  for (const { id, duration } of music) {
    parts.push({ footageId: id, at });
    at += duration;
  }
  return { parts, linedUp };
}
