import { nanoid } from 'nanoid';
import type { StoreApi } from 'zustand';
import { CallError, call } from '@/contract/call';
import { saveChange, saveProject, type Saved } from '@/contract/projects';
import { EMPTY_HISTORY, type History, type Versioned } from '@/core/edit/history';
import { historyDelta, type HistoryDelta } from '@/core/edit/history-delta';
import { tell } from '../shell/notices-store';
import { bringTogether, readNewest } from './catch-up';
import type { EditorState, SaveState } from './session/state';

const PAUSE_MS = 500;
const RETRY_MS = 4000;

let last: Promise<unknown> = Promise.resolve();

/** Settles when no save is under way any more. */
export const savesDone = (): Promise<unknown> => last;

/** What becomes of a save that was not done: tried again, or left for the next edit. */
const stateAfter = (error: unknown): SaveState =>
  error instanceof CallError && error.status >= 400 && error.status < 500 ? 'refused' : 'failed';

const hasStatus = (error: unknown, ...all: number[]): boolean =>
  error instanceof CallError && all.includes(error.status);

/** A history without the older half of its steps, and without those that were undone. */
const newerHalf = ({ done }: History): History => ({
  done: done.slice(Math.ceil(done.length / 2)),
  undone: [],
});

/** A save that was sent; it is sent again as it is until it is answered. */
interface Sent {
  readonly key: string;
  /** Null sends the whole. */
  readonly delta: HistoryDelta | null;
  readonly target: Versioned;
}

export interface Autosave {
  /** Somebody saved a revision: what it changed is taken over if it is not this tab's own. */
  readonly heardOf: (revision: number) => void;
  readonly stop: () => void;
}

/**
 * Saves the project shortly after each change, one save at a time, each as what was done since the
 * one before. What others saved meanwhile is brought together with what was done here, unless both
 * touched the same thing.
 */
export function startAutosave(store: StoreApi<EditorState>): Autosave {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let saving = false;
  let saved: Saved = store.getState();
  let sent: Sent | null = null;
  let newest = saved.revision;
  let stopped = false;

  const later = (ms: number) => {
    if (timer) clearTimeout(timer);
    if (!stopped) timer = setTimeout(() => void save(), ms);
  };
  const save = () => (last = saveNow());
  const isSaved = ({ project, history }: Versioned) =>
    project === saved.project && history === saved.history;

  /** What is to be sent next: what waits for its answer, or what was done since. */
  const nextSave = (): Sent => {
    const { project, history } = store.getState();
    const target = { project, history };
    return (sent ??= { key: nanoid(), delta: historyDelta(saved, target), target });
  };

  const send = ({ key, delta, target }: Sent) => {
    const { id } = store.getState();
    const { revision } = saved;
    return delta
      ? call(saveChange, { params: { id }, body: { base: revision, key, delta } })
      : call(saveProject, { params: { id }, body: { revision, ...target } });
  };

  /** Takes over what is newest, with what was done here and is not saved yet. */
  const takeNewest = async () => {
    const found = await readNewest(store.getState().id, saved);
    const mine = store.getState();
    const together = bringTogether(saved, mine, found, mine.sources);
    sent = null;
    if (!together) return store.setState({ save: 'stale', saveFault: null });
    const own = together.project !== found.project;
    saved = found;
    mine.adopt(together, found.revision, own ? 'waiting' : 'saved');
    if (!own) return;
    tell('What was changed in another tab was brought together with what you did here.');
    later(PAUSE_MS);
  };

  const notSaved = async (error: unknown, what: Sent) => {
    const { history } = store.getState();
    if (hasStatus(error, 409)) return takeNewest();
    if (what.delta && hasStatus(error, 413, 422)) {
      // A change that is too large, or does not fit what the server has, travels whole.
      sent = { ...what, delta: null };
      return again();
    }
    if (hasStatus(error, 413) && history.done.length + history.undone.length > 0) {
      // The work comes first: of the undo history the older half gives way.
      sent = null;
      store.setState({
        history: what.target.history.done.length ? newerHalf(history) : EMPTY_HISTORY,
      });
      return again();
    }
    const save = stateAfter(error);
    const changed = store.getState().project !== what.target.project;
    // What was refused is not sent again; what was not answered is, as it was.
    if (save === 'refused') sent = null;
    store.setState({
      save: save === 'refused' && changed ? 'waiting' : save,
      saveFault: error instanceof Error ? error.message : String(error),
    });
    if (save === 'failed') later(RETRY_MS);
    else if (changed) later(PAUSE_MS);
  };

  const again = () => {
    store.setState({ save: 'waiting' });
    later(0);
  };

  const saveNow = async () => {
    const { save: state } = store.getState();
    if (saving || state === 'stale' || state === 'saved' || state === 'refused') return;
    saving = true;
    const what = nextSave();
    store.setState({ save: 'saving' });
    try {
      const { revision } = await send(what);
      saved = { ...what.target, revision };
      sent = null;
      const changed = !isSaved(store.getState());
      store.setState({ revision, save: changed ? 'waiting' : 'saved', saveFault: null });
      if (changed) later(PAUSE_MS);
    } catch (error) {
      await notSaved(error, what).catch((late: unknown) => {
        store.setState({ save: 'failed', saveFault: late instanceof Error ? late.message : null });
        later(RETRY_MS);
      });
    } finally {
      saving = false;
      catchUp();
    }
  };

  const catchUp = () => {
    // A save under way, or one without an answer, will find out.
    if (newest <= saved.revision || saving || sent) return;
    if (store.getState().save === 'stale') return;
    saving = true;
    last = takeNewest()
      .catch(() => undefined)
      .finally(() => (saving = false));
  };

  const unsubscribe = store.subscribe((now, before) => {
    if (now.project !== before.project && now.save !== 'saved') later(PAUSE_MS);
  });
  const warn = (event: BeforeUnloadEvent) => {
    if (store.getState().save === 'saved') return;
    void save();
    event.preventDefault();
  };
  window.addEventListener('beforeunload', warn);
  return {
    heardOf(revision) {
      newest = Math.max(newest, revision);
      catchUp();
    },
    stop() {
      stopped = true;
      unsubscribe();
      window.removeEventListener('beforeunload', warn);
      if (timer) clearTimeout(timer);
      void save();
    },
  };
}
