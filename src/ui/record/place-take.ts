import type { StoreApi } from 'zustand';
import { call } from '@/contract/call';
import { keepTake } from '@/contract/takes';
import type { EditorState } from '../edit/session/state';

/**
 * Keeps a take and puts it at its step of the open project, as one step of the undo history.
 * Answers whether it stands there.
 */
export async function keepAndPlace(
  editor: StoreApi<EditorState>,
  takeId: string,
): Promise<boolean> {
  const take = await call(keepTake, { params: { id: takeId } });
  return editor.getState().apply('place-take', { take }) !== null;
}
