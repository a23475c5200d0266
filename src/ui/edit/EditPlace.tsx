'use client';
import { useEffect, useState } from 'react';
import type { StoreApi } from 'zustand';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { api } from '../shell/api';
import { PlaceHeader } from '../shell/PlaceHeader';
import { startAutosave } from './autosave';
import { CommandList } from './CommandList';
import { ExportDialog } from '../publish/ExportDialog';
import { KeyTable } from './KeyTable';
import { SidePanel } from './panel/SidePanel';
import { Picture } from './picture/Picture';
import { Transport } from './picture/Transport';
import { usePlayer } from './picture/use-player';
import { SaveBadge, StaleBanner } from './SaveBadge';
import { listen, sourcesOf } from './server-state';
import { createEditor, EditorProvider, useEditor, useEditorStore, type EditorState, type OpenedProject } from './store';
import { Timeline } from './timeline/Timeline';
import { useKeys } from './use-keys';
import { useFileDrop } from './use-file-drop';
import { Button } from '../parts/Button';

export function EditPlace({ id }: { id: string }) {
  const [store, setStore] = useState<StoreApi<EditorState> | null>(null);
  const [error, setError] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    api<OpenedProject>(`/api/projects/${id}`)
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
      <Workbench />
    </EditorProvider>
  );
}

/** Keeps footage, tracks and revision in step with the server. */
function useServerState() {
  const store = useEditorStore();
  useEffect(() => {
    const pointers: Record<string, PointerTrack> = {};
    const loading = new Set<string>();
    const refresh = () => store.setState({ sources: sourcesOf(store.getState().footage, { ...pointers }) });
    const { id } = store.getState();
    return listen(
      id,
      ({ revision, name, footage, exports, jobs }) => {
        const known = store.getState();
        const newer = revision > known.revision && known.save !== 'saving';
        const changed = JSON.stringify(known.footage) !== JSON.stringify(footage);
        store.setState({ name, exports, jobs, ...(changed ? { footage } : {}), ...(newer ? { save: 'stale' as const } : {}) });
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

function Workbench() {
  const store = useEditorStore();
  const name = useEditor((s) => s.name);
  const id = useEditor((s) => s.id);
  const [exporting, setExporting] = useState(false);
  const [commands, setCommands] = useState(false);
  const [keys, setKeys] = useState(false);
  useServerState();
  useEffect(() => startAutosave(store), [store]);
  const { canvasRef, player } = usePlayer();
  const openers = { commands: () => setCommands(true), keys: () => setKeys(true), exporting: () => setExporting(true) };
  useKeys(player, openers);
  const over = useFileDrop();
  return (
    <div className="grid h-screen grid-rows-[40px_auto_minmax(0,1fr)] overflow-hidden">
      <PlaceHeader id={id} name={name} place="Edit">
        <SaveBadge />
        <Button look="quiet" onClick={openers.commands}>
          Commands
        </Button>
        <Button look="primary" onClick={openers.exporting}>
          Export
        </Button>
      </PlaceHeader>
      <div className="grid h-[max(300px,calc(100vh-384px))] grid-cols-[minmax(0,58fr)_minmax(340px,42fr)] border-b border-line">
        <section aria-label="Picture" className="grid min-h-0 grid-rows-[minmax(0,1fr)_36px] border-r border-line">
          <Picture canvasRef={canvasRef} player={player} />
          <Transport player={player} />
        </section>
        <SidePanel />
      </div>
      <Timeline player={player} />
      <StaleBanner />
      {over && (
        <div className="pointer-events-none fixed inset-0 z-30 flex items-center justify-center border-4 border-action bg-paper/80 text-xl font-semibold">
          Drop recordings to add them to Footage
        </div>
      )}
      <ExportDialog open={exporting} onClose={() => setExporting(false)} />
      <CommandList open={commands} onClose={() => setCommands(false)} player={player} openers={openers} />
      <KeyTable open={keys} onClose={() => setKeys(false)} player={player} openers={openers} />
    </div>
  );
}
