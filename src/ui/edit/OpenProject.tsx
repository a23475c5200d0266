'use client';
import { useEffect, useState, type ReactNode } from 'react';
import { call } from '@/contract/call';
import { openProject } from '@/contract/projects';
import { tell } from '../shell/notices-store';
import { DropHint } from '../shell/DropHint';
import { PlaceHeader, type Place } from '../shell/PlaceHeader';
import { useFileDrop } from '../shell/use-file-drop';
import { savesDone } from './autosave';
import { bringFiles } from './bring-files';
import { NotOpened } from './NotOpened';
import { EditorSession } from './session/editor-session';
import { EditorProvider, useEditorStore } from './store';
import { useExportNews } from './use-export-news';
import { useGestures } from './use-gestures';

/**
 * Opens a project for one of its places: what is inside can read and edit it, and it is saved by
 * itself.
 */
export function OpenProject({
  id,
  name,
  place,
  children,
}: {
  id: string;
  /** As the server knows it, until the project is open. */
  name: string;
  place: Place;
  children: ReactNode;
}) {
  const [session, setSession] = useState<EditorSession | null>(null);
  const [error, setError] = useState<Error | null>(null);
  useEffect(() => {
    let gone = false;
    let opened: EditorSession | null = null;
    // The place that was left may still be saving.
    savesDone()
      .then(() => call(openProject, { params: { id } }))
      .then((found) => {
        if (gone) return;
        opened = new EditorSession(found);
        setSession(opened);
        for (const note of found.notes) tell(note);
      })
      .catch((e: Error) => !gone && setError(e));
    return () => {
      gone = true;
      opened?.dispose();
      setSession(null);
    };
  }, [id]);
  if (error) return <NotOpened id={id} error={error} />;
  if (!session)
    return (
      <>
        <PlaceHeader id={id} name={name} place={place} />
        <p role="status" className="p-10 text-ink-2">
          Opening the project…
        </p>
      </>
    );
  return (
    <EditorProvider value={session}>
      <Hands>{children}</Hands>
    </EditorProvider>
  );
}

/** What a person's hands do in any place: gestures, and files that are dropped. */
function Hands({ children }: { children: ReactNode }) {
  const store = useEditorStore();
  useGestures();
  useExportNews();
  const over = useFileDrop((files) => bringFiles(store, files));
  return (
    <>
      {children}
      {over && <DropHint />}
    </>
  );
}
