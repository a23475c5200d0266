'use client';
import { TextSelect } from 'lucide-react';
import type { Callout } from '@/core/project/model';
import { Button } from '../../parts/Button';
import { tellFault } from '../../shell/notices-store';
import { alongText } from '../new-callout';
import { useEditor, useEditorStore } from '../store';
import { playheadOf } from '../store';

/** Lays a marker pen along the lines of text that it lies over. */
export function MarkText({ callout }: { callout: Callout & { kind: 'highlight' } }) {
  const store = useEditorStore();
  const apply = useEditor((s) => s.apply);
  const mark = () => {
    const change = alongText(store.getState(), callout, playheadOf(store.getState()));
    if (Object.keys(change).length) apply('change-callout', { id: callout.id, change });
    else
      tellFault(
        'No line of text was found under it. Have the recording looked through in Footage, or place it by hand.',
      );
  };
  return (
    <Button onClick={mark}>
      <TextSelect size={14} aria-hidden /> Along the text
    </Button>
  );
}
