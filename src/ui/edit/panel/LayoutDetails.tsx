'use client';
import { builtInOf, LAYOUT_KINDS, LAYOUTS } from '@/core/layout/built-in';
import { SelectField } from '../../parts/fields';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { SpanTimes } from './SpanTimes';

export function LayoutDetails({ id }: { id: string }) {
  const span = useEditor((s) => s.project.layouts.find((l) => l.id === id));
  const apply = useEditor((s) => s.apply);
  if (!span) return null;
  const { name } = span.layout;
  const kind = builtInOf(span.layout);
  return (
    <div className="grid gap-2">
      <Heading title="Layout" />
      <SelectField
        label="Shows"
        value={kind ?? 'own'}
        options={[
          ...LAYOUT_KINDS.map((k) => [k, LAYOUTS[k].name] as const),
          ...(kind ? [] : [['own', name] as const]),
        ]}
        onChange={(chosen) =>
          chosen !== 'own' &&
          apply('change-layout', { id, change: { layout: structuredClone(LAYOUTS[chosen]) } })
        }
      />
      <SpanTimes span={span} name="layout" />
    </div>
  );
}
