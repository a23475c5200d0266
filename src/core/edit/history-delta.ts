import { readHistory } from './check-history';
import { same } from '../schema/same';
import { goToStep, HISTORY_DEPTH, historyLine, type HistoryEntry, type Versioned } from './history';
import { PatchError, patchProject } from './patch';

/**
 * What was done between two states of a project, as steps of its undo history: how a change travels
 * to the server and to other tabs. The edits of a history in the order in which they were first
 * done, those undone again included, are its line; a delta says which part of the line stays.
 */
export interface HistoryDelta {
  /** So many of the oldest edits are forgotten. */
  readonly drop: number;
  /** So many edits of the line that is left stay; those after them never come back. */
  readonly keep: number;
  /** Edits that were done then. */
  readonly add: readonly HistoryEntry[];
  /** So many edits of the line are done afterwards; the others are undone. */
  readonly done: number;
}

/**
 * What leads from one state of a project to a later one. Entries are compared by reference: both
 * must come from one editor. Null where what was done in between is no longer all there, as after
 * more edits than a history keeps: then the whole document has to travel.
 */
export function historyDelta(before: Versioned, after: Versioned): HistoryDelta | null {
  const from = historyLine(before.history);
  const to = historyLine(after.history);
  const first = to[0] === undefined ? -1 : from.indexOf(to[0]);
  // With nothing in common, all was undone and something else done, or all was forgotten.
  const drops = first < 0 ? [0, before.history.done.length] : [first];
  for (const drop of drops) {
    let keep = 0;
    while (keep < to.length && drop + keep < from.length && from[drop + keep] === to[keep]) keep++;
    const delta = { drop, keep, add: to.slice(keep), done: after.history.done.length };
    if (leadsTo(before, delta, after)) return delta;
  }
  return null;
}

function leadsTo(before: Versioned, delta: HistoryDelta, after: Versioned): boolean {
  try {
    return same(applyHistoryDelta(before, delta).project, after.project);
  } catch (error) {
    if (error instanceof PatchError) return false;
    throw error;
  }
}

/**
 * A state after a delta that was made for it.
 *
 * @throws PatchError when it was made for another state
 */
export function applyHistoryDelta(state: Versioned, delta: HistoryDelta): Versioned {
  const { drop, keep, add, done } = delta;
  const line = historyLine(state.history);
  if (drop + keep > line.length || done > keep + add.length)
    throw new PatchError('The change was made for another state of the project.');
  let { project } = goToStep(state, drop + keep);
  for (const { forward } of add) project = patchProject(project, forward);
  const whole = {
    project,
    history: { done: [...line.slice(drop, drop + keep), ...add], undone: [] },
  };
  return goToStep(whole, done);
}

const isCount = (value: unknown): value is number =>
  Number.isSafeInteger(value) && (value as number) >= 0 && (value as number) <= 10 * HISTORY_DEPTH;

/** Reads a delta from outside; null for what is none. */
export function readHistoryDelta(value: unknown): HistoryDelta | null {
  if (typeof value !== 'object' || value === null) return null;
  const { drop, keep, add, done, ...more } = value as Record<string, unknown>;
  if (Object.keys(more).length || ![drop, keep, done].every(isCount)) return null;
  const read = readHistory({ done: add, undone: [] });
  if ('fault' in read) return null;
  if ((done as number) > (keep as number) + read.history.done.length) return null;
  return {
    drop: drop as number,
    keep: keep as number,
    add: read.history.done,
    done: done as number,
  };
}
