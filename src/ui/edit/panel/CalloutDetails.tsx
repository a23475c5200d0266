'use client';
import { changeSpan } from '@/core/edit/spans';
import type { CoverCallout, ShapeCallout, StrokeCallout, TextCallout } from '@/core/project/model';
import { CheckField, ColorField, SelectField, SliderField, TextField } from '../../parts/fields';
import { calloutName } from '../names';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { SpanTimes } from './SpanTimes';

const COVER_NAMES = [
  ['blur', 'Blur'],
  ['mosaic', 'Mosaic'],
  ['solid', 'Solid'],
] as const;

export function CalloutDetails({ id }: { id: string }) {
  const callout = useEditor((s) => s.project.callouts.find((c) => c.id === id));
  const edit = useEditor((s) => s.edit);
  const set = useEditor((s) => s.set);
  const typeInto = useEditor((s) => s.typeInto);
  if (!callout) return null;
  const cover = (what: Partial<Pick<CoverCallout, 'way' | 'strength' | 'color'>>, merge = true) =>
    edit('Cover', (draft) => changeSpan(draft, 'callouts', id, what), merge);
  if (callout.kind === 'cover')
    return (
      <div className="grid gap-2">
        <Heading title="Cover" />
        <SelectField
          label="Way"
          value={callout.way}
          options={COVER_NAMES}
          onChange={(way) => cover({ way }, false)}
        />
        {callout.way === 'solid' ? (
          <ColorField label="Colour" value={callout.color} onChange={(color) => cover({ color })} />
        ) : (
          <SliderField
            label={callout.way === 'blur' ? 'Blur' : 'Blocks'}
            value={callout.strength}
            min={4}
            max={100}
            step={1}
            unit="px"
            onChange={(strength) => cover({ strength })}
          />
        )}
        {callout.way !== 'solid' && (
          <p className="text-xs text-ink-2">
            For passwords and keys take solid: of large letters a blur and coarse blocks leave
            something to guess.
          </p>
        )}
        <p className="text-xs text-ink-2">
          Drag the rectangle on the Picture over what is private. It stays on its spot of the
          recording.
        </p>
        <SpanTimes span={callout} name="cover" />
      </div>
    );
  if (callout.kind !== 'text') return <DrawnDetails callout={callout} />;
  const change = (
    what: Partial<Omit<TextCallout, 'id' | 'start' | 'end' | 'kind'>>,
    merge = true,
  ) => edit('Callout', (draft) => changeSpan(draft, 'callouts', id, what), merge);
  return (
    <div className="grid gap-2">
      <Heading title="Callout" />
      <TextField
        label="Words"
        lines={2}
        value={callout.text}
        focus={typeInto === id}
        onFocused={() => set({ typeInto: null })}
        onDone={(text) => change({ text }, false)}
      />
      <SliderField
        label="Letter size"
        value={callout.size}
        min={14}
        max={120}
        step={1}
        unit="px"
        onChange={(size) => change({ size })}
      />
      <ColorField label="Box" value={callout.fill} onChange={(fill) => change({ fill })} />
      <ColorField label="Letters" value={callout.ink} onChange={(ink) => change({ ink })} />
      <CheckField label="Arrow" value={callout.arrow} onChange={(arrow) => change({ arrow })} />
      <p className="text-xs text-ink-2">
        Drag the round handle on the Picture to what the arrow should point at, the dashed one to
        place the words.
      </p>
      <SpanTimes span={callout} name="callout" />
    </div>
  );
}

/** What was drawn by hand, live or here. */
function DrawnDetails({ callout }: { callout: StrokeCallout | ShapeCallout }) {
  const edit = useEditor((s) => s.edit);
  const change = (what: { width?: number; color?: string }) =>
    edit('Drawing', (draft) => changeSpan(draft, 'callouts', callout.id, what), true);
  const name = calloutName(callout);
  return (
    <div className="grid gap-2">
      <Heading title={name[0]!.toUpperCase() + name.slice(1)} />
      <SliderField
        label="Width"
        value={callout.width}
        min={2}
        max={120}
        step={1}
        unit="px"
        onChange={(width) => change({ width })}
      />
      <ColorField label="Colour" value={callout.color} onChange={(color) => change({ color })} />
      <p className="text-xs text-ink-2">
        Drag it on the Picture. It stays on its spot of the recording.
      </p>
      <SpanTimes span={callout} name="drawing" />
    </div>
  );
}
