'use client';
import { useState } from 'react';
import { shownKeys } from '../keys/shown';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { useRecord } from './record-store';
import { DEFAULT_SETTINGS, keyName, RECORD_ACTIONS, type RecordAction } from './settings';

/** The keys of the Record place, each to be set by pressing it. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  const keys = useRecord((s) => s.settings.keys);
  const change = useRecord((s) => s.change);
  const [listening, setListening] = useState<RecordAction | null>(null);
  const [taken, setTaken] = useState<string | null>(null);
  const press = (action: RecordAction) => (event: React.KeyboardEvent) => {
    if (listening !== action) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Escape') return setListening(null);
    const name = keyName(event);
    if (!name) return;
    const other = RECORD_ACTIONS.find(([a]) => a !== action && keys[a] === name);
    setTaken(other ? `${shownKeys(name)} is already used for “${other[1]}”.` : null);
    if (!other) {
      change({ keys: { ...keys, [action]: name } });
      setListening(null);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Keys"
      description="Press one on the right, then the keys you want. With Alt or Ctrl they work while you type."
    >
      <ul className="grid gap-1">
        {RECORD_ACTIONS.map(([action, label]) => (
          <li key={action} className="flex items-center justify-between gap-4">
            {label}
            <Button
              className="numbers min-w-28"
              aria-label={`Key for ${label}`}
              onClick={() => setListening(action)}
              onKeyDown={press(action)}
              onBlur={() => setListening(null)}
            >
              {listening === action ? 'press keys…' : shownKeys(keys[action])}
            </Button>
          </li>
        ))}
      </ul>
      {taken && (
        <p role="alert" className="mt-2 text-fault">
          {taken}
        </p>
      )}
      <div className="mt-4 flex justify-between">
        <Button onClick={() => change({ keys: DEFAULT_SETTINGS.keys })}>Restore defaults</Button>
        <Button look="primary" onClick={onClose}>
          Done
        </Button>
      </div>
    </Dialog>
  );
}
