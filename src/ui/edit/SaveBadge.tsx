'use client';
import { Button } from '../parts/Button';
import { saveAs } from '../parts/save-as';
import type { SaveState } from './session/state';
import { useEditor, useEditorStore } from './store';

const WORDS: Record<SaveState, string> = {
  saved: 'saved',
  waiting: 'saving…',
  saving: 'saving…',
  failed: 'not saved, trying again',
  refused: 'not saved',
  stale: 'not saved',
};

export function SaveBadge() {
  const save = useEditor((s) => s.save);
  const connected = useEditor((s) => s.connected);
  const why = useEditor((s) => s.saveFault);
  const fault = save === 'failed' || save === 'refused' || save === 'stale' || !connected;
  return (
    <span
      role="status"
      title={fault ? (why ?? undefined) : undefined}
      className={`text-xs ${fault ? 'font-semibold text-fault' : 'text-ink-2'}`}
    >
      {connected ? WORDS[save] : 'server not reached'}
    </span>
  );
}

/** Says why the work here is not being saved, and how to go on from there. */
export function SaveBanner() {
  const save = useEditor((s) => s.save);
  const why = useEditor((s) => s.saveFault);
  const undo = useEditor((s) => s.undo);
  const store = useEditorStore();
  if (save !== 'stale' && save !== 'refused') return null;
  const keep = () => {
    const { name, project } = store.getState();
    saveAs(`${name}.json`, 'application/json', JSON.stringify(project, null, 2));
  };
  return (
    <div
      role="alert"
      className="fixed inset-x-0 top-12 z-40 mx-auto flex w-fit max-w-[min(56rem,95vw)] items-center gap-3 border border-caution bg-sheet px-4 py-2 shadow-md"
    >
      {save === 'stale' ? (
        <>
          <span>
            What you did last was changed in another tab, or by a command, at the same time. What
            you do here is no longer saved.
          </span>
          <Button onClick={keep}>Save a copy of this</Button>
          <Button look="primary" onClick={() => window.location.reload()}>
            Load the newer version
          </Button>
        </>
      ) : (
        <>
          <span>{why} It is tried again after the next edit.</span>
          <Button onClick={keep}>Save a copy of this</Button>
          <Button look="primary" onClick={undo}>
            Undo the last edit
          </Button>
        </>
      )}
    </div>
  );
}
