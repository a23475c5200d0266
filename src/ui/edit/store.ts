import { createContext, useCallback, useContext, useSyncExternalStore } from 'react';
import { useStore, type StoreApi } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { findSpan } from '@/core/edit/spans';
import { findClip } from '@/core/project/query';
import type { Ticks } from '@/core/time/ticks';
import type { EditorSession } from './session/editor-session';
import type { EditorState } from './session/state';
import type { Transport } from './session/transport';

const EditorContext = createContext<EditorSession | null>(null);
export const EditorProvider = EditorContext.Provider;

/** The open project. */
export function useSession(): EditorSession {
  const session = useContext(EditorContext);
  if (!session) throw new Error('There is no open project around this component.');
  return session;
}

/** What is known of the open project. */
export const useEditorStore = (): StoreApi<EditorState> => useSession().store;

/** A part of the editor's state; the component is drawn again when it changes. */
export const useEditor = <T>(select: (state: EditorState) => T): T =>
  useStore(useEditorStore(), useShallow(select));

/** A part of where playback is; only what shows that is drawn again while playing. */
export const useTransport = <T>(select: (transport: Transport) => T): T =>
  useStore(useEditorStore().getState().transport, useShallow(select));

/** What the editor's state is at the playhead. */
export function useAtPlayhead<T>(select: (state: EditorState, playhead: Ticks) => T): T {
  const store = useEditorStore();
  const { transport } = store.getState();
  const pick = useShallow((state: EditorState) => select(state, transport.getState().playhead));
  const get = () => pick(store.getState());
  const subscribe = useCallback(
    (told: () => void) => {
      const ends = [store.subscribe(told), transport.subscribe(told)];
      return () => ends.forEach((end) => end());
    },
    [store, transport],
  );
  return useSyncExternalStore(subscribe, get, get);
}

/** Where the playhead is. */
export const playheadOf = ({ transport }: Pick<EditorState, 'transport'>): Ticks =>
  transport.getState().playhead;

/** Ids of all clips that are selected. */
export function selectedClips({
  selection,
  also,
  project,
}: Pick<EditorState, 'selection' | 'also' | 'project'>): string[] {
  const ids = selection && 'id' in selection ? [selection.id, ...also] : [];
  return ids.filter((id) => findClip(project, id));
}

/** Ids of all spans that are selected. */
export function selectedSpans({
  selection,
  also,
  project,
}: Pick<EditorState, 'selection' | 'also' | 'project'>): string[] {
  const ids = selection && 'id' in selection ? [selection.id, ...also] : [];
  return ids.filter((id) => findSpan(project, id));
}

export { rangeOf } from './session/range';
