import type { StoreApi } from 'zustand';
import { tell, type NoticeAction } from '../shell/notices-store';
import type { EditorState } from './session/state';

/**
 * What takes back the edit that was done last, for a message about it. Once something else was done
 * it takes nothing back: that would be another thing than the message tells of.
 */
export function undoAction(store: StoreApi<EditorState>): NoticeAction {
  const entry = store.getState().history.done.at(-1);
  return {
    label: 'Undo',
    run: () => {
      const { history, undo } = store.getState();
      if (entry && history.done.at(-1) === entry) undo();
      else tell('Something else was done since. The undo history goes back further.');
    },
  };
}
