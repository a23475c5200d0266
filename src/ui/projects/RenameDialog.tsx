'use client';
import { useState } from 'react';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { Field, inputLook } from '../parts/fields';

interface Props {
  readonly name: string;
  readonly hint?: string;
  readonly onClose: () => void;
  readonly onRename: (name: string) => void;
}

export function RenameDialog({
  name,
  hint = 'The name is also that of exported files.',
  onClose,
  onRename,
}: Props) {
  const [draft, setDraft] = useState(name);
  return (
    <Dialog open onClose={onClose} title="Rename" description={hint}>
      <form
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (!draft.trim()) return;
          onRename(draft.trim());
          onClose();
        }}
      >
        <Field label="Name">
          {(id) => (
            <input
              id={id}
              autoFocus
              maxLength={200}
              value={draft}
              onChange={(e) => setDraft(e.target.value)}
              className={inputLook}
            />
          )}
        </Field>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="primary" disabled={!draft.trim()}>
            Rename
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
