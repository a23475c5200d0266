'use client';
import { changeSpan } from '@/core/edit/spans';
import type { DimAround, Halo } from '@/core/project/model';
import { CheckField, ColorField, SliderField } from '../../parts/fields';
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
    edit(
      'Halo',
      (draft) => changeSpan(draft, 'pointer', id, { halo: { ...span.halo, ...what } }),
      true,
    );
  return (
    <div className="grid gap-2">
      <Heading title="Halo" />
      {!tracks && (
        <p className="text-caution">
          No recording has a pointer track yet, so there is nothing for the halo to follow. Attach
          one in Footage.
        </p>
      )}
      <SliderField
        label="Size"
        value={span.halo.size}
        min={30}
        max={400}
        step={2}
        unit="px"
        onChange={(size) => change({ size })}
      />
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
      <DimFields
        dim={span.dim}
        onChange={(dim, merge) =>
          edit('Dim around', (draft) => changeSpan(draft, 'pointer', id, { dim }), merge)
        }
      />
      <SpanTimes span={span} name="halo" />
    </div>
  );
}

const DEFAULT_DIM: DimAround = { size: 420, softness: 0.5, dark: 0.45, drained: 0.3 };

/** What becomes of all but the pointer's surroundings. */
function DimFields({
  dim,
  onChange,
}: {
  dim: DimAround | null;
  onChange: (dim: DimAround | null, merge: boolean) => void;
}) {
  const change = (what: Partial<DimAround>) => dim && onChange({ ...dim, ...what }, true);
  const share = (key: 'softness' | 'dark' | 'drained', label: string) => (
    <SliderField
      label={label}
      value={dim![key]}
      min={0}
      max={1}
      step={0.05}
      unit="%"
      show={percent}
      onChange={(value) => change({ [key]: value })}
    />
  );
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="sr-only">Dim around</legend>
      <CheckField
        label="Dim around"
        value={!!dim}
        onChange={(on) => onChange(on ? DEFAULT_DIM : null, false)}
      />
      {dim && (
        <>
          <SliderField
            label="Clear"
            value={dim.size}
            min={80}
            max={1600}
            step={10}
            unit="px"
            onChange={(size) => change({ size })}
          />
          {share('softness', 'Passage')}
          {share('dark', 'Darker')}
          {share('drained', 'Less colour')}
        </>
      )}
    </fieldset>
  );
}
