'use client';
import { useMemo } from 'react';
import { KeysDialog, type KeyPlace } from '../keys/KeysDialog';
import { OUTLINE_WAYS } from '../outline/ways';
import { RECORD_KEYS } from '../record/actions';
import { usualCommands } from './commands';
import { useEditor, useEditorStore } from './store';

const EDIT_WAYS = [
  ['Trim', 'drag an edge'],
  ['Ripple trim', 'Shift, drag an edge'],
  ['Roll the cut', 'Ctrl, drag an edge'],
  ['Move', 'drag a clip'],
  ['Slip contents', 'Ctrl, drag a clip'],
  ['Slide clip', 'Shift, drag a clip'],
  ['Leave snapping out', 'hold Alt while dragging'],
  ['Choose several', 'drag over empty room; Ctrl or Shift, press'],
  ['Range', 'Shift, drag on the ruler'],
  ['Open a join', 'press or drag its dashed gap'],
  ['Level point', 'double press on the line of a sound clip'],
  ['Open a group', 'double press'],
  ['Reorder lanes', 'drag a name up or down'],
  ['Height of a lane', 'drag the lower edge of its name'],
  ['Scale', 'Ctrl, wheel'],
  ['Place footage', 'drag it here; Shift makes room, Alt overwrites'],
] as const;

/** Keys of every place, the one that is open first. */
export function AllKeys({
  open,
  onClose,
  place,
}: {
  open: boolean;
  onClose: () => void;
  place: 'Edit' | 'Record' | 'Outline';
}) {
  const store = useEditorStore();
  const saved = useEditor((s) => s.savedLayouts);
  const places = useMemo((): readonly KeyPlace[] => {
    const edit = usualCommands(store, null).map(({ name, commands }) => ({
      name,
      // Escape is the way back everywhere.
      items: commands.filter(({ id }) => id !== 'deselect'),
    }));
    const all: readonly KeyPlace[] = [
      { name: 'Edit', groups: edit, others: EDIT_WAYS },
      {
        name: 'Record',
        groups: [{ name: 'With Alt or Ctrl they work while you type', items: RECORD_KEYS }],
        others: [],
      },
      { name: 'Outline', groups: [], others: OUTLINE_WAYS },
    ];
    return [...all].sort((a, b) => Number(b.name === place) - Number(a.name === place));
    // Layouts that were saved have commands of their own.
  }, [store, place, saved]); // oxlint-disable-line react/exhaustive-deps
  return <KeysDialog open={open} onClose={onClose} places={places} />;
}
