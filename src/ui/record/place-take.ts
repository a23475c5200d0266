import type { StoreApi } from 'zustand';
import type { TakePlacement } from '@/server/takes/keep';
import type { EditorState } from '../edit/store';
import { api } from '../shell/api';

/**
 * Keeps a take and puts it at its step of the open project, as one step of the undo history.
 * Answers whether it stands there.
 */
export async function keepAndPlace(
  editor: StoreApi<EditorState>,
  takeId: string,
): Promise<boolean> {
  const take = await api<TakePlacement>(`/api/takes/${takeId}/keep`, { method: 'POST' });
  return editor.getState().apply('place-take', { take }) !== null;
}
