'use client';
import type { Player } from '@/preview/player';
import { Dialog } from '../parts/Dialog';
import { showKeys } from './CommandList';
import { editorCommands } from './commands';
import { useEditorStore } from './store';

export function KeyTable({ open, onClose, player }: { open: boolean; onClose: () => void; player: Player | null }) {
  const store = useEditorStore();
  const commands = editorCommands(store, player).filter((c) => c.keys.length);
  return (
    <Dialog
      open={open}
      onClose={onClose}
      wide
      title="Keys"
      description="On a Mac, Cmd stands for Ctrl. Hold Alt while dragging to leave snapping out."
    >
      <dl className="grid grid-cols-2 gap-x-8 gap-y-1">
        {commands.map((command) => (
          <div key={command.id} className="flex justify-between gap-2 border-b border-line">
            <dt>{command.label}</dt>
            <dd className="numbers">{command.keys.map(showKeys).join('  ')}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
