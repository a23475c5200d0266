import type { Project } from '../project/model';
import { applyEdit, changeBetween, type Change, type Edit } from './apply';
import { patchProject } from './patch';

export interface HistoryEntry extends Change {
  readonly label: string;
}

/** Undo and redo as patches; plain data, saved beside the project. */
export interface History {
  readonly done: readonly HistoryEntry[];
  readonly undone: readonly HistoryEntry[];
}

export const EMPTY_HISTORY: History = { done: [], undone: [] };

/** How far back undo goes. */
export const HISTORY_DEPTH = 500;

export interface Versioned {
  readonly project: Project;
  readonly history: History;
}

/**
 * The edits of a history in the order in which they were first done: those that are done, then those
 * that were undone, the next to be done again in front.
 */
export const historyLine = ({ done, undone }: History): HistoryEntry[] => [
  ...done,
  ...[...undone].reverse(),
];

/**
 * Does an edit and remembers how to undo it. An edit that changes nothing leaves
 * no trace. With `merge`, an edit of the same label joins the one before it, as
 * the steps of one drag do.
 */
export function doEdit(state: Versioned, label: string, edit: Edit, merge = false): Versioned {
  const { project, change } = applyEdit(state.project, edit);
  if (project === state.project) return state;
  const last = state.history.done[state.history.done.length - 1];
  const joined = merge && last?.label === label;
  const entry: HistoryEntry = joined
    ? { label, ...changeBetween(patchProject(state.project, last.inverse), project).change }
    : { label, ...change };
  const done = [...(joined ? state.history.done.slice(0, -1) : state.history.done), entry].slice(
    -HISTORY_DEPTH,
  );
  return { project, history: { done, undone: [] } };
}

/** One step back; the same state when there is none. */
export function undo(state: Versioned): Versioned {
  const entry = state.history.done[state.history.done.length - 1];
  if (!entry) return state;
  return {
    project: patchProject(state.project, entry.inverse),
    history: { done: state.history.done.slice(0, -1), undone: [...state.history.undone, entry] },
  };
}

/** One step forward again; the same state when there is none. */
export function redo(state: Versioned): Versioned {
  const entry = state.history.undone[state.history.undone.length - 1];
  if (!entry) return state;
  return {
    project: patchProject(state.project, entry.forward),
    history: { done: [...state.history.done, entry], undone: state.history.undone.slice(0, -1) },
  };
}

/**
 * Goes to the state in which `count` edits are done, back or forward; the list of edits as it
 * stands is the way.
 */
export function goToStep(state: Versioned, count: number): Versioned {
  let now = state;
  while (now.history.done.length > count && now.history.done.length) now = undo(now);
  while (now.history.done.length < count && now.history.undone.length) now = redo(now);
  return now;
}
