import type { StoreApi } from 'zustand';
import type { History } from '@/core/edit/history';
import { same } from '@/core/schema/same';
import type { Project } from '@/core/project/model';
import { api, ApiError } from '../shell/api';
import type { EditorState, SaveState } from './store';

const PAUSE_MS = 500;
const RETRY_MS = 4000;

let last: Promise<unknown> = Promise.resolve();

/** Settles when no save is under way any more. */
export const savesDone = (): Promise<unknown> => last;

/** What becomes of a save that was not done: tried again, given up, or left for the next edit. */
function stateAfter(error: unknown): SaveState {
  if (!(error instanceof ApiError)) return 'failed';
  if (error.status === 409) return 'stale';
  return error.status >= 400 && error.status < 500 ? 'refused' : 'failed';
}

const isTooLarge = (error: unknown): boolean => error instanceof ApiError && error.status === 413;

/** A history without the older half of its steps, and without those that were undone. */
const newerHalf = ({ done }: History): History => ({
  done: done.slice(Math.ceil(done.length / 2)),
  undone: [],
});

/** Saves the project shortly after each change, one save at a time; the answer ends it. */
export function startAutosave(store: StoreApi<EditorState>): () => void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let saving = false;
  /**
   * What was sent since the last answer: the server may have saved any of it although its answer
   * never came.
   */
  let unanswered: Project[] = [];

  /** The revision that the server has, if it is one that was sent from here without an answer. */
  const ownRevision = async (id: string, continues: number): Promise<number | null> => {
    if (!unanswered.length) return null;
    const stored = await api<{ revision: number; project: Project }>(`/api/projects/${id}`);
    const ours =
      stored.revision === continues + 1 && unanswered.some((sent) => same(stored.project, sent));
    return ours ? stored.revision : null;
  };

  const later = (ms: number) => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void save(), ms);
  };

  const save = () => (last = saveNow());

  const saveNow = async () => {
    const { id, project, history, revision, save: state } = store.getState();
    if (saving || state === 'stale' || state === 'saved' || state === 'refused') return;
    saving = true;
    store.setState({ save: 'saving' });
    try {
      const answer = await api<{ revision: number }>(`/api/projects/${id}`, {
        method: 'PUT',
        body: { revision, project, history },
      });
      unanswered = [];
      const changed = store.getState().project !== project;
      store.setState({
        revision: answer.revision,
        save: changed ? 'waiting' : 'saved',
        saveFault: null,
      });
      if (changed) later(PAUSE_MS);
    } catch (error) {
      const save = stateAfter(error);
      if (save === 'stale') {
        const own = await ownRevision(id, revision).catch(() => null);
        unanswered = [];
        if (own !== null) {
          store.setState({ revision: own, save: 'waiting', saveFault: null });
          return later(0);
        }
      } else if (save === 'failed') unanswered.push(project);
      if (isTooLarge(error) && history.done.length + history.undone.length > 0) {
        // The work comes first: of the undo history the older half gives way.
        store.setState({ history: newerHalf(store.getState().history), save: 'waiting' });
        return later(0);
      }
      const changed = store.getState().project !== project;
      store.setState({
        save: save === 'refused' && changed ? 'waiting' : save,
        saveFault: error instanceof Error ? error.message : String(error),
      });
      if (save === 'failed') later(RETRY_MS);
      else if (changed) later(PAUSE_MS);
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
