'use client';
import { kindOf } from '@/core/callout/kinds';
import { anchorFootage } from '@/core/callout/anchor';
import type { SavedCallout } from '@/core/callout/saved';
import { inStyle, styleOf, type CalloutStyle } from '@/core/callout/style';
import type { Callout } from '@/core/project/model';
import { footageOf } from '@/core/project/sources';
import { SavedPresets } from '../../presets/SavedPresets';
import { useEditor } from '../store';
import { useSavedCallout } from '../use-saved-callout';

/** What a style was taken from, and its colours. */
const describe = ({ kind, settings }: CalloutStyle): string => {
  const colors = ['color', 'fill', 'ink'].flatMap((name) => settings[name] ?? []);
  return [kindOf({ kind }).name, ...colors].join(', ');
};

/** Styles and callouts that were saved for all projects, and what a callout is now. */
export function CalloutStyles({ callout }: { callout: Callout }) {
  const apply = useEditor((s) => s.apply);
  const canvas = useEditor((s) => s.project.canvas);
  const footage = useEditor((s) => footageOf(s.sources, anchorFootage(callout.anchor) ?? ''));
  const use = useSavedCallout();
  const saved = (one: Callout): SavedCallout => {
    const { width, height } = footage ?? canvas;
    return { callout: one, of: { width, height } };
  };
  return (
    <fieldset className="grid grid-cols-1 gap-2 border-t border-line pt-2">
      <legend className="font-semibold">For all projects</legend>
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
      <SavedPresets
        kind="callout"
        title="Saved callouts"
        one="callout"
        now={saved(callout)}
        describe={({ callout: { kind } }) => kindOf({ kind }).name}
        onUse={({ value }) => use(value)}
      />
    </fieldset>
  );
}
