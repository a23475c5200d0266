import type { Versioned } from '@/core/edit/history';

/*
 * Documents that were saved of late, as they are: a change is applied to them without reading and
 * parsing the whole. What is here is never the truth, only a copy of a revision of the database.
 */

/** So many projects are kept in memory. */
const MOST = 6;

interface Live {
  readonly revision: number;
  readonly state: Versioned;
}

const shared = globalThis as { vistumLive?: Map<string, Live> };
const all = (): Map<string, Live> => (shared.vistumLive ??= new Map());

/** A project's state at a revision, if it is here. */
export function liveState(id: string, revision: number): Versioned | null {
  const found = all().get(id);
  return found?.revision === revision ? found.state : null;
}

/** Keeps a state; of those not used for longest one goes. */
export function keepLive(id: string, revision: number, state: Versioned): void {
  const states = all();
  states.delete(id);
  states.set(id, { revision, state });
  for (const oldest of states.keys()) {
    if (states.size <= MOST) return;
    states.delete(oldest);
  }
}
