'use client';
import { kindOf } from '@/core/callout/kinds';
import type { Callout } from '@/core/project/model';
import { TextField } from '../../parts/fields';
import { useEditor } from '../store';

/** The words of a callout that has some; those of a new one are typed over at once. */
export function CalloutText({ callout }: { callout: Callout & { text: string } }) {
  const { id, text, kind } = callout;
  const apply = useEditor((s) => s.apply);
  const set = useEditor((s) => s.set);
  const typeInto = useEditor((s) => s.typeInto);
  const { text: schema } = kindOf(callout).schema.properties as { text?: { maxLength?: number } };
  return (
    <TextField
      label={kind === 'keycaps' ? 'Keys' : 'Text'}
      lines={kind === 'keycaps' ? 1 : 2}
      most={schema?.maxLength}
      of={id}
      value={text}
      focus={typeInto === id}
      onFocused={() => set({ typeInto: null })}
      onDone={(words) => apply('change-callout', { id, change: { text: words } })}
    />
  );
}
