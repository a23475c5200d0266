'use client';
import { Button } from '../parts/Button';
import { useEditor, type SaveState } from './store';

const WORDS: Record<SaveState, string> = {
  saved: 'saved',
  waiting: 'saving…',
  saving: 'saving…',
  failed: 'not saved, trying again',
  stale: 'not saved',
};

export function SaveBadge() {
  const save = useEditor((s) => s.save);
  const connected = useEditor((s) => s.connected);
  const fault = save === 'failed' || save === 'stale' || !connected;
  return (
    <span role="status" className={`text-xs ${fault ? 'font-semibold text-fault' : 'text-ink-2'}`}>
      {connected ? WORDS[save] : 'server not reached'}
    </span>
  );
}

/** Says that another tab went on with the project, and how to go on from there. */
export function StaleBanner() {
  const stale = useEditor((s) => s.save === 'stale');
  if (!stale) return null;
  return (
    <div
      role="alert"
      className="fixed top-12 left-1/2 z-40 flex -translate-x-1/2 items-center gap-3 border border-caution bg-sheet px-4 py-2 shadow-md"
    >
      <span>
        This project was changed in another tab or by a command. What you do here is no longer
        saved.
      </span>
      <Button look="primary" onClick={() => window.location.reload()}>
        Load the newer version
      </Button>
    </div>
  );
}
