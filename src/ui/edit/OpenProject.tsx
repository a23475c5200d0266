'use client';
import { useEffect, useState, type ReactNode } from 'react';
import type { StoreApi } from 'zustand';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { api } from '../shell/api';
import { savesDone, startAutosave } from './autosave';
import { listen, sourcesOf } from './server-state';
import {
  createEditor,
  EditorProvider,
  useEditorStore,
  type EditorState,
  type OpenedProject,
} from './store';

/** Opens a project for one of its places: what is inside can read and edit it, and it is saved by itself. */
export function OpenProject({ id, children }: { id: string; children: ReactNode }) {
  const [store, setStore] = useState<StoreApi<EditorState> | null>(null);
  const [error, setError] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    // The place that was left may still be saving.
    savesDone()
      .then(() => api<OpenedProject>(`/api/projects/${id}`))
      .then((opened) => !gone && setStore(createEditor(opened)))
      .catch((e: Error) => !gone && setError(e.message));
    return () => {
      gone = true;
    };
  }, [id]);
  if (error)
    return (
      <div className="p-10">
        <p className="mb-3 text-fault">{error}</p>
        <a className="text-action underline" href="/">
          Back to Projects
        </a>
      </div>
    );
  if (!store) return <p className="p-10 text-ink-2">Opening the project…</p>;
  return (
    <EditorProvider value={store}>
      <InStep>{children}</InStep>
    </EditorProvider>
  );
}

function InStep({ children }: { children: ReactNode }) {
  const store = useEditorStore();
  useServerState();
  useEffect(() => startAutosave(store), [store]);
  return children;
}

/** Keeps footage, tracks and revision in step with the server. */
function useServerState() {
  const store = useEditorStore();
  useEffect(() => {
    const pointers: Record<string, PointerTrack> = {};
    const loading = new Set<string>();
    const refresh = () =>
      store.setState({ sources: sourcesOf(store.getState().footage, { ...pointers }) });
    const { id } = store.getState();
    return listen(
      id,
      ({ revision, name, footage, exports, jobs, takes }) => {
        const known = store.getState();
        const newer = revision > known.revision && known.save !== 'saving';
        const changed = JSON.stringify(known.footage) !== JSON.stringify(footage);
        store.setState({
          name,
          exports,
          jobs,
          takes,
          ...(changed ? { footage } : {}),
          ...(newer ? { save: 'stale' as const } : {}),
        });
        if (changed) refresh();
        for (const view of footage) {
          const key = `${view.id}`;
          if (!view.hasPointer || view.status !== 'ready' || loading.has(key)) continue;
          loading.add(key);
          void api<PointerTrack>(`/api/footage/${view.id}/pointer`)
            .then((track) => {
              pointers[view.id] = track;
              refresh();
            })
            .catch(() => loading.delete(key));
        }
      },
      (connected) => store.setState({ connected }),
    );
  }, [store]);
}
