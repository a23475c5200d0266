'use client';
import { kindOf } from '@/core/callout/kinds';
import type { Callout } from '@/core/project/model';
import { useEditor } from '../store';
import { TextOf } from './TextOf';

/** The words of a callout that has some; those of a new one are typed over at once. */
export function CalloutText({ callout }: { callout: Callout & { text: string } }) {
  const { id, text, kind } = callout;
  const apply = useEditor((s) => s.apply);
  const set = useEditor((s) => s.set);
  const typeInto = useEditor((s) => s.typeInto);
  const { text: schema } = kindOf(callout).schema.properties as { text?: { maxLength?: number } };
  return (
    <TextOf
      id={id}
      label={kind === 'keycaps' ? 'Keys' : 'Text'}
      lines={kind === 'keycaps' ? 1 : 2}
      most={schema?.maxLength}
      value={text}
      focus={typeInto === id}
      onFocused={() => set({ typeInto: null })}
      onDone={(words) => apply('change-callout', { id, change: { text: words } })}
    />
  );
}
