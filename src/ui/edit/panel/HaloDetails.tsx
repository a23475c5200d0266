'use client';
import { changeSpan } from '@/core/edit/spans';
import type { Halo } from '@/core/project/model';
import { ColorField, SliderField } from '../../parts/fields';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { SpanTimes } from './SpanTimes';

const percent = (v: number) => String(Math.round(v * 100));

export function HaloDetails({ id }: { id: string }) {
  const span = useEditor((s) => s.project.pointer.find((p) => p.id === id));
  const edit = useEditor((s) => s.edit);
  const tracks = useEditor((s) => Object.keys(s.sources.pointers).length);
  if (!span) return null;
  const change = (what: Partial<Halo>) =>
    edit('Halo', (draft) => changeSpan(draft, 'pointer', id, { halo: { ...span.halo, ...what } }), true);
  return (
    <div className="grid gap-2">
      <Heading title="Halo" />
      {!tracks && (
        <p className="text-caution">
          No recording has a pointer track yet, so there is nothing for the halo to follow. Attach one in Footage.
        </p>
      )}
      <SliderField label="Size" value={span.halo.size} min={30} max={400} step={2} unit="px" onChange={(size) => change({ size })} />
      <ColorField label="Colour" value={span.halo.color} onChange={(color) => change({ color })} />
      <SliderField
        label="Softness"
        value={span.halo.softness}
        min={0}
        max={1}
        step={0.02}
        unit="%"
        show={percent}
        onChange={(softness) => change({ softness })}
      />
      <SliderField
        label="Opacity"
        value={span.halo.opacity}
        min={0.05}
        max={1}
        step={0.05}
        unit="%"
        show={percent}
        onChange={(opacity) => change({ opacity })}
      />
      <SpanTimes span={span} name="halo" />
    </div>
  );
}
