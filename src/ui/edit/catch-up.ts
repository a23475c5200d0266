import { call } from '@/contract/call';
import { openProject, readChanges, type Saved } from '@/contract/projects';
import { HISTORY_DEPTH, type HistoryEntry, type Versioned } from '@/core/edit/history';
import { applyHistoryDelta, readHistoryDelta } from '@/core/edit/history-delta';
import { mergeProjects } from '@/core/edit/merge';
import { diffProjects, PatchError } from '@/core/edit/patch';
import type { Sources } from '@/core/project/sources';
import { isSound } from '@/core/project/structure';

/** The newest state of a project: what was changed since a known one, or the whole. */
export async function readNewest(id: string, known: Saved): Promise<Saved> {
  const { revision, deltas } = await call(readChanges, {
    params: { id },
    query: { since: known.revision },
  });
  const state = deltas && applied(known, deltas);
  if (state) return { ...state, revision };
  const whole = await call(openProject, { params: { id } });
  return { project: whole.project, history: whole.history, revision: whole.revision };
}

function applied(known: Versioned, deltas: readonly unknown[]): Versioned | null {
  try {
    return deltas.reduce<Versioned>((state, value) => {
      const delta = readHistoryDelta(value);
      if (!delta) throw new PatchError('The change is none.');
      return applyHistoryDelta(state, delta);
    }, known);
  } catch (error) {
    if (error instanceof PatchError) return null;
    throw error;
  }
}

/**
 * What was done here since a saved state, brought together with the newest one: as one more step
 * of its history.
 *
 * @returns null when both touched the same thing, or what comes of it would not be sound
 */
export function bringTogether(
  saved: Saved,
  mine: Versioned,
  newest: Saved,
  sources: Sources,
): Versioned | null {
  if (mine.project === saved.project) return newest;
  const merged = mergeProjects(saved.project, mine.project, newest.project);
  if (!merged || !isSound(merged, sources)) return null;
  const { patch: forward, result } = diffProjects(newest.project, merged);
  // What both did alike, such as a save whose answer was lost, is there already.
  if (result === newest.project) return newest;
  const entry: HistoryEntry = {
    label: mine.history.done.at(-1)?.label ?? 'Edit',
    forward,
    inverse: diffProjects(result, newest.project).patch,
  };
  const done = [...newest.history.done, entry].slice(-HISTORY_DEPTH);
  return { project: result, history: { done, undone: [] } };
}
