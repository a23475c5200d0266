'use client';
import { changeSpan } from '@/core/edit/spans';
import type { LayoutKind } from '@/core/project/model';
import { SelectField } from '../../parts/fields';
import { LAYOUT_NAMES } from '../names';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { SpanTimes } from './SpanTimes';

export function LayoutDetails({ id }: { id: string }) {
  const span = useEditor((s) => s.project.layouts.find((l) => l.id === id));
  const edit = useEditor((s) => s.edit);
  if (!span) return null;
  return (
    <div className="grid gap-2">
      <Heading title="Layout" />
      <SelectField
        label="Shows"
        value={span.kind}
        options={Object.entries(LAYOUT_NAMES) as [LayoutKind, string][]}
        onChange={(kind) => edit('Layout', (draft) => changeSpan(draft, 'layouts', id, { kind }))}
      />
      <SpanTimes span={span} name="layout" />
    </div>
  );
}
