import type { StoreApi } from 'zustand';
import { readAnalysis, requestAnalysis, type SoundOnsets } from '@/contract/analyses';
import { call } from '@/contract/call';
import { UNDECIDED, type FootageView } from '@/contract/footage';
import { arrangeRecordings, type HeardTogether } from '@/core/edit/arrange';
import { secondsToTicks } from '@/core/time/ticks';
import { matchSounds } from '@/preview/sound-matcher';
import { tell, tellFault } from '../../shell/notices-store';
import { useArrivals, type Arrival } from '../arrivals';
import { placeParts } from '../placing';
import { undoAction } from '../undo-action';
import type { EditorState } from './state';

const STILL = secondsToTicks(5);

/** Waits until something of the state is there. */
function waitFor<T>(
  store: StoreApi<EditorState>,
  what: (state: EditorState) => T | null,
  signal: AbortSignal,
): Promise<T> {
  return new Promise((resolve, reject) => {
    const look = () => {
      const found = what(store.getState());
      if (found === null) return;
      end();
      resolve(found);
    };
    const stop = () => {
      end();
      reject(signal.reason as Error);
    };
    const silence = store.subscribe(look);
    const end = () => {
      silence();
      signal.removeEventListener('abort', stop);
    };
    signal.addEventListener('abort', stop);
    if (signal.aborted) stop();
    else look();
  });
}

const isEmpty = ({ project }: EditorState): boolean =>
  project.lanes.every((lane) => !lane.clips.length);

/** Which of the recordings heard the same; none where that can't be found out. */
async function heardTogether(
  store: StoreApi<EditorState>,
  views: readonly FootageView[],
  signal: AbortSignal,
): Promise<readonly HeardTogether[]> {
  const sounding = views.filter(({ role, facts }) => facts?.hasAudio && role !== 'music');
  if (sounding.length < 2) return [];
  try {
    const heard = await Promise.all(
      sounding.map(async ({ id }) => {
        const body = { kind: 'onsets' } as const;
        const asked = await call(requestAnalysis, { params: { id }, body });
        const status = await waitFor(
          store,
          ({ analyses, footage }) => {
            // Nothing is found out any more of what was deleted meanwhile.
            if (!footage.some((f) => f.id === id)) return 'failed';
            const row = analyses.find((a) => a.id === asked.id);
            return row && row.status !== 'waiting' ? row.status : null;
          },
          signal,
        );
        if (status !== 'ready') return [];
        const found = await call(readAnalysis, { params: { id: asked.id } });
        // The kind that was asked for says what it is.
        return [{ id, onsets: (found as SoundOnsets).onsets }];
      }),
    );
    return await matchSounds(heard.flat(), signal);
  } catch (error) {
    signal.throwIfAborted();
    // They can be moved by hand.
    tellFault(error);
    return [];
  }
}

/** Places what was brought, where nothing stands on the timeline; else says that it is there. */
async function receive(
  store: StoreApi<EditorState>,
  { footage }: Arrival,
  signal: AbortSignal,
): Promise<void> {
  const ids = await footage;
  if (!ids.length) return;
  signal.throwIfAborted();
  // The server tells of new footage a moment later; what was there and is not any more was deleted.
  const seen = new Set<string>();
  const views = await waitFor(
    store,
    (state) => {
      const all = ids.flatMap((id) => state.footage.find((f) => f.id === id) ?? []);
      for (const { id } of all) seen.add(id);
      const known = all.every(
        ({ facts, role, status }) => status === 'failed' || (facts && role !== UNDECIDED),
      );
      return known && seen.size === new Set(ids).size ? all : null;
    },
    signal,
  );
  const good = views.filter(({ status }) => status !== 'failed');
  for (const { error } of views) if (error) tellFault(error);
  if (!good.length) return;
  const many = good.length === 1 ? good[0]!.name : `${good.length} recordings`;
  if (!isEmpty(store.getState()))
    return tell(`${many} ${good.length === 1 ? 'is' : 'are'} in Footage.`, {
      label: 'Place at the end',
      run: () =>
        void placeParts(
          store,
          good.map(({ id }) => id),
          null,
          'free',
          null,
        ),
    });
  if (good.length > 1) store.getState().set({ arriving: 'Lining up by sound…' });
  const heard = await heardTogether(store, good, signal);
  const known = store.getState().sources.footage;
  const recordings = good.flatMap(({ id }) => known[id] ?? []);
  const { parts, linedUp } = arrangeRecordings(recordings, heard, STILL);
  const { apply } = store.getState();
  if (!isEmpty(store.getState())) return;
  if (!apply('place-recordings', { parts: [...parts] })) return;
  // All of it in sight.
  store.getState().set({ pixelsPerSecond: 0 });
  tell(
    linedUp.length
      ? `${many} placed; ${linedUp.length} lined up by their sound.`
      : `${many} placed.`,
    undoAction(store),
  );
}

/**
 * Puts files that are brought to a project on its empty timeline, lined up, as soon as it is known
 * what they are.
 *
 * @returns ends it; what is not placed by then, the next one goes on with
 */
export function followArrivals(store: StoreApi<EditorState>): () => void {
  const abort = new AbortController();
  const begun = new Set<string>();
  let queue: Promise<void> = Promise.resolve();
  const take = () => {
    const { id: projectId, set } = store.getState();
    for (const arrival of useArrivals.getState().arrivals) {
      if (arrival.projectId !== projectId || begun.has(arrival.id)) continue;
      begun.add(arrival.id);
      queue = queue
        .then(() => receive(store, arrival, abort.signal))
        .catch((error: unknown) => {
          if (!abort.signal.aborted) tellFault(error);
        })
        .finally(() => {
          set({ arriving: null });
          if (!abort.signal.aborted) useArrivals.getState().end(arrival.id);
        });
    }
  };
  const silence = useArrivals.subscribe(take);
  take();
  return () => {
    abort.abort();
    silence();
  };
}
