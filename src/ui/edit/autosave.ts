import type { StoreApi } from 'zustand';
import { api, ApiError } from '../shell/api';
import type { EditorState } from './store';

const PAUSE_MS = 500;
const RETRY_MS = 4000;

let last: Promise<unknown> = Promise.resolve();

/** Settles when no save is under way any more. */
export const savesDone = (): Promise<unknown> => last;

/** Saves the project shortly after each change, one save at a time; the answer ends it. */
export function startAutosave(store: StoreApi<EditorState>): () => void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let saving = false;

  const later = (ms: number) => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void save(), ms);
  };

  const save = () => (last = saveNow());

  const saveNow = async () => {
    const { id, project, history, revision, save: state } = store.getState();
    if (saving || state === 'stale' || state === 'saved') return;
    saving = true;
    store.setState({ save: 'saving' });
    try {
      const answer = await api<{ revision: number }>(`/api/projects/${id}`, {
        method: 'PUT',
        body: { revision, project, history },
      });
      const changed = store.getState().project !== project;
      store.setState({ revision: answer.revision, save: changed ? 'waiting' : 'saved' });
      if (changed) later(PAUSE_MS);
    } catch (error) {
      const stale = error instanceof ApiError && error.status === 409;
      store.setState({ save: stale ? 'stale' : 'failed' });
      if (!stale) later(RETRY_MS);
    } finally {
      saving = false;
    }
  };

  const unsubscribe = store.subscribe((now, before) => {
    if (now.project !== before.project) later(PAUSE_MS);
  });
  const warn = (event: BeforeUnloadEvent) => {
    if (store.getState().save === 'saved') return;
    void save();
    event.preventDefault();
  };
  window.addEventListener('beforeunload', warn);
  return () => {
    unsubscribe();
    window.removeEventListener('beforeunload', warn);
    if (timer) clearTimeout(timer);
    void save();
  };
}
