'use client';
import { changeSpan } from '@/core/edit/spans';
import { DEFAULT_DIM } from '@/core/pointer/halo';
import { DimAround, Halo } from '@/core/project/model';
import { CheckField } from '../../parts/fields';
import { SettingFields } from '../../parts/setting-fields';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { SpanTimes } from './SpanTimes';

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
      <SettingFields schema={Halo} value={span.halo} onChange={change} />
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

/** What becomes of all but the pointer's surroundings. */
function DimFields({
  dim,
  onChange,
}: {
  dim: DimAround | null;
  onChange: (dim: DimAround | null, merge: boolean) => void;
}) {
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="sr-only">Dim around</legend>
      <CheckField
        label="Dim around"
        value={!!dim}
        onChange={(on) => onChange(on ? DEFAULT_DIM : null, false)}
      />
      {dim && (
        <SettingFields
          schema={DimAround}
          value={dim}
          onChange={(what, run) => onChange({ ...dim, ...what }, run)}
        />
      )}
    </fieldset>
  );
}
