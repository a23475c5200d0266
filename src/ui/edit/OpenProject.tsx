'use client';
import { useEffect, useState, type ReactNode } from 'react';
import type { StoreApi } from 'zustand';
import { call } from '@/contract/call';
import { readPointer } from '@/contract/footage';
import { openProject } from '@/contract/projects';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { scaleTrack } from '@/core/telemetry/sample';
import { tell } from '../shell/notices-store';
import { savesDone, startAutosave } from './autosave';
import { NotOpened } from './NotOpened';
import { listen, sourcesOf } from './server-state';
import { useGestures } from './use-gestures';
import { createEditor, EditorProvider, useEditorStore, type EditorState } from './store';

/**
 * Opens a project for one of its places: what is inside can read and edit it, and it is saved by
 * itself.
 */
export function OpenProject({ id, children }: { id: string; children: ReactNode }) {
  const [store, setStore] = useState<StoreApi<EditorState> | null>(null);
  const [error, setError] = useState<Error | null>(null);
  useEffect(() => {
    let gone = false;
    // The place that was left may still be saving.
    savesDone()
      .then(() => call(openProject, { params: { id } }))
      .then((opened) => {
        if (gone) return;
        setStore(createEditor(opened));
        for (const note of opened.notes) tell(note);
      })
      .catch((e: Error) => !gone && setError(e));
    return () => {
      gone = true;
    };
  }, [id]);
  if (error) return <NotOpened id={id} error={error} />;
  if (!store) return <p className="p-10 text-ink-2">Opening the project…</p>;
  return (
    <EditorProvider value={store}>
      <InStep>{children}</InStep>
    </EditorProvider>
  );
}

function InStep({ children }: { children: ReactNode }) {
  useServerState();
  useGestures();
  return children;
}

/** Saves what is done, and keeps document, footage and tracks in step with the server. */
function useServerState() {
  const store = useEditorStore();
  useEffect(() => {
    const autosave = startAutosave(store);
    const pointers: Record<string, PointerTrack> = {};
    const loading = new Set<string>();
    const refresh = () =>
      store.setState({ sources: sourcesOf(store.getState().footage, { ...pointers }) });
    const { id } = store.getState();
    const silence = listen(
      id,
      ({ revision, name, footage, exports, jobs, takes, analyses }) => {
        const known = store.getState();
        const changed = JSON.stringify(known.footage) !== JSON.stringify(footage);
        store.setState({
          name,
          exports,
          jobs,
          takes,
          analyses,
          ...(changed ? { footage } : {}),
        });
        autosave.heardOf(revision);
        // A track that is being read takes the place of the one that is there.
        const reading = new Set(
          analyses.flatMap((a) =>
            a.kind === 'pointer' && a.status === 'waiting' ? [a.footageId] : [],
          ),
        );
        for (const footageId of reading) loading.delete(footageId);
        if (changed) refresh();
        for (const view of footage) {
          if (!view.hasPointer || !view.facts || view.status !== 'ready') continue;
          if (reading.has(view.id) || loading.has(view.id)) continue;
          loading.add(view.id);
          void call(readPointer, { params: { id: view.id } })
            .then((track) => {
              const { width, height } = view.facts!;
              // A recording that was relinked may have another size than the one it was attached
              // to.
              pointers[view.id] = scaleTrack(track, width, height);
              refresh();
            })
            .catch(() => loading.delete(view.id));
        }
      },
      (connected) => store.setState({ connected }),
    );
    return () => {
      silence();
      autosave.stop();
    };
  }, [store]);
}
