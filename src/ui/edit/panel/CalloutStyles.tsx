'use client';
import { kindOf } from '@/core/callout/kinds';
import { inStyle, styleOf, type CalloutStyle } from '@/core/callout/style';
import type { Callout } from '@/core/project/model';
import { SavedPresets } from '../../presets/SavedPresets';
import { useEditor } from '../store';

/** What a style was taken from, and its colours. */
const describe = ({ kind, settings }: CalloutStyle): string => {
  const colors = ['color', 'fill', 'ink'].flatMap((name) => settings[name] ?? []);
  return [kindOf({ kind }).name, ...colors].join(', ');
};

/** Styles that were saved for all projects, and the one that a callout has now. */
export function CalloutStyles({ callout }: { callout: Callout }) {
  const apply = useEditor((s) => s.apply);
  return (
    <fieldset className="grid grid-cols-1 gap-2 border-t border-line pt-2">
      <legend className="font-semibold">Saved styles</legend>
      <SavedPresets
        kind="style"
        title="Saved styles"
        one="style"
        now={styleOf(callout)}
        describe={describe}
        onUse={({ value }) =>
          apply('change-callout', { id: callout.id, change: inStyle(callout, value) })
        }
      />
    </fieldset>
  );
}
