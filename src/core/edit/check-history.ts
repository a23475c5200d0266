import type { Project } from '../project/model';
import type { History, HistoryEntry } from './history';
import { isPatch, patchProject } from './patch';

/** More entries than undo ever keeps are not read. */
const MOST_ENTRIES = 1000;
/** A label can quote what a person wrote; what is longer is cut off, never refused. */
const LONGEST_LABEL = 200;

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function entryFault(entry: unknown): string | null {
  if (!isObject(entry)) return 'has an entry that is not an object';
  if (typeof entry.label !== 'string') return 'has an entry without a label';
  if (!isPatch(entry.forward) || !isPatch(entry.inverse)) return 'has an entry that is no change';
  return null;
}

/**
 * Checks the form of an undo history that came from outside.
 *
 * @returns the history with nothing else in it, or what is wrong as the end of a sentence ("is not
 * a list")
 */
export function readHistory(value: unknown): { history: History } | { fault: string } {
  if (!isObject(value)) return { fault: 'is not an object' };
  const lists: Record<'done' | 'undone', HistoryEntry[]> = { done: [], undone: [] };
  for (const name of ['done', 'undone'] as const) {
    const list = value[name];
    if (!Array.isArray(list)) return { fault: `has no list “${name}”` };
    if (list.length > MOST_ENTRIES) return { fault: `has more than ${MOST_ENTRIES} entries` };
    for (const entry of list as unknown[]) {
      const fault = entryFault(entry);
      if (fault) return { fault };
      const { label, forward, inverse } = entry as HistoryEntry;
      lists[name].push({ label: label.slice(0, LONGEST_LABEL), forward, inverse });
    }
  }
  return { history: lists };
}

/**
 * Whether every step back and every step forward of a history fits the documents that it leads
 * through.
 */
export function historyFits(project: Project, { done, undone }: History): boolean {
  try {
    let now = project;
    for (const entry of [...done].reverse()) now = patchProject(now, entry.inverse);
    now = project;
    for (const entry of [...undone].reverse()) now = patchProject(now, entry.forward);
    return true;
  } catch {
    return false;
  }
}
