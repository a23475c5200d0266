'use client';
import { useEffect, useState, type ReactNode } from 'react';
import { call } from '@/contract/call';
import { openProject, type OpenedProject } from '@/contract/projects';
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

/** What the page of a place brings with it. */
export interface ProjectPage {
  readonly id: string;
  /** As the server knows it, until the project is open. */
  readonly name: string;
  /** What opening it answers, as JSON text; null when it is to be asked for. */
  readonly first: string | null;
}

/**
 * Whether what came with the page was taken: a place that is gone back to later may have the same,
 * of long ago.
 */
let firstTaken = false;

/** The project as it came with the page, or as the server has it now. */
async function openedOf(id: string, first: string | null): Promise<OpenedProject> {
  if (first !== null && !firstTaken) {
    firstTaken = true;
    return JSON.parse(first) as OpenedProject;
  }
  // The place that was left may still be saving.
  await savesDone();
  return call(openProject, { params: { id } });
}

/**
 * Opens a project for one of its places: what is inside can read and edit it, and it is saved by
 * itself.
 */
export function OpenProject({
  id,
  name,
  first,
  place,
  children,
}: ProjectPage & { place: Place; children: ReactNode }) {
  const [session, setSession] = useState<EditorSession | null>(null);
  const [error, setError] = useState<Error | null>(null);
  // A page that is made anew brings another text; what is open stays open.
  const [came] = useState(first);
  useEffect(() => {
    let gone = false;
    let opened: EditorSession | null = null;
    openedOf(id, came)
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
  }, [id, came]);
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
