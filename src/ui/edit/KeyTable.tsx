'use client';
import type { Player } from '@/preview/player';
import { shownKeys } from '../keys/shown';
import { Dialog } from '../parts/Dialog';
import { editorCommands } from './commands';
import { useEditorStore } from './store';

const GESTURES = [
  ['Trim', 'drag an edge'],
  ['Ripple trim', 'Shift, drag an edge'],
  ['Roll the cut', 'Ctrl, drag an edge'],
  ['Move', 'drag a clip'],
  ['Slip contents', 'Ctrl, drag a clip'],
  ['Slide clip', 'Shift, drag a clip'],
  ['Choose several', 'drag over empty room; Ctrl or Shift, press'],
  ['Open a join', 'press or drag its dashed gap'],
  ['Level point', 'double press on the line of a sound clip'],
  ['Open a group', 'double press'],
  ['Reorder lanes', 'drag a name up or down'],
  ['Height of a lane', 'drag the lower edge of its name'],
  ['Scale', 'Ctrl, wheel'],
  ['Place footage', 'drag it here; Shift makes room, Alt overwrites'],
] as const;

export function KeyTable({
  open,
  onClose,
  player,
}: {
  open: boolean;
  onClose: () => void;
  player: Player | null;
}) {
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
            <dd className="numbers">{command.keys.map(shownKeys).join('  ')}</dd>
          </div>
        ))}
      </dl>
      <h3 className="mt-4 mb-1 font-semibold">With the pointer, on the timeline</h3>
      <dl className="grid grid-cols-2 gap-x-8 gap-y-1">
        {GESTURES.map(([what, how]) => (
          <div key={what} className="flex justify-between gap-2 border-b border-line">
            <dt>{what}</dt>
            <dd className="text-right text-ink-2">{how}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
