'use client';
import { useState } from 'react';
import type { Player } from '@/preview/player';
import { Dialog } from '../parts/Dialog';
import { inputLook } from '../parts/fields';
import { editorCommands } from './commands';
import { useEditorStore } from './store';

interface Props {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly player: Player | null;
}

/** Every command by name; typing narrows the list, Enter does the marked one. */
export function CommandList({ open, onClose, player }: Props) {
  const store = useEditorStore();
  const [filter, setFilter] = useState('');
  const [marked, setMarked] = useState(0);
  const words = filter.toLowerCase().split(/\s+/);
  const found = editorCommands(store, player).filter(
    (c) => c.id !== 'commands' && words.every((w) => c.label.toLowerCase().includes(w)),
  );
  const close = () => {
    setFilter('');
    setMarked(0);
    onClose();
  };
  const run = (index: number) => {
    const command = found[index];
    close();
    // After the dialog has gone and given the focus back.
    if (command) setTimeout(command.run);
  };
  return (
    <Dialog
      open={open}
      onClose={close}
      title="Commands"
      description="Type to narrow the list, Enter to do the marked one."
    >
      <input
        autoFocus
        aria-label="Command"
        className={inputLook}
        value={filter}
        onChange={(e) => {
          setFilter(e.target.value);
          setMarked(0);
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown') setMarked((m) => Math.min(found.length - 1, m + 1));
          else if (e.key === 'ArrowUp') setMarked((m) => Math.max(0, m - 1));
          else if (e.key === 'Enter') run(marked);
          else return;
          e.preventDefault();
        }}
      />
      <ul role="listbox" aria-label="Commands" className="mt-2 max-h-80 overflow-auto">
        {found.map((command, i) => (
          <li key={command.id} role="option" aria-selected={i === marked}>
            <button
              className={`flex w-full justify-between gap-4 px-2 py-1 text-left ${i === marked ? 'bg-action text-on-action' : 'hover:bg-paper'}`}
              onClick={() => run(i)}
            >
              <span>{command.label}</span>
              <span className="numbers">{command.keys.map(showKeys).join('  ')}</span>
            </button>
          </li>
        ))}
        {!found.length && <li className="px-2 py-1 text-ink-2">No command has these words.</li>}
      </ul>
    </Dialog>
  );
}

/** Keys as they are printed. */
export const showKeys = (keys: string): string =>
  keys.replace('Mod', 'Ctrl').replace('ArrowLeft', '←').replace('ArrowRight', '→');
