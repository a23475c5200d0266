'use client';
import { LOOKS, lookKindOf, type PointerLookName } from '@/core/pointer/looks';
import { newLook, type PointerLook, type PointerSpan } from '@/core/pointer/model';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { CheckField, SliderField } from '../../parts/fields';
import { SettingFields } from '../../parts/setting-fields';
import { SavedPresets } from '../../presets/SavedPresets';
import { pointerName } from '../names';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { SpanTimes } from './SpanTimes';

const labelOf = (kind: PointerLookName) => lookKindOf({ kind }).label;

/** By their names, so that each is found. */
const ORDER = (Object.keys(LOOKS) as PointerLookName[]).sort((a, b) =>
  labelOf(a).localeCompare(labelOf(b)),
);

/** How the pointer looks for a while: each look switched on or off, with its settings. */
export function PointerDetails({ id }: { id: string }) {
  const span = useEditor((s) => s.project.pointer.find((p) => p.id === id));
  const apply = useEditor((s) => s.apply);
  const tracks = useEditor((s) => Object.keys(s.sources.pointers).length);
  const unread = useEditor(({ sources: { pointers, sights } }) =>
    Object.entries(pointers).some(([id, t]) => t.inPicture !== false && !sights?.[id]),
  );
  if (!span) return null;
  const paintsOut = span.looks.some((look) => lookKindOf(look).paintsOut);
  const setLooks = (looks: readonly PointerLook[], run: boolean) =>
    apply('change-pointer-looks', { id, change: { looks: [...looks] } }, run);
  return (
    <div className="grid gap-2">
      <Heading title="Pointer" />
      {!tracks && (
        <p className="text-caution">
          No recording has a pointer track yet, so there is nothing to follow. Press “Find the
          pointer” in the details of a screen recording in Footage, or attach one there.
        </p>
      )}
      {tracks > 0 && unread && paintsOut && (
        <p className="text-caution">
          What lies beneath a pointer is known once its recording was looked through. Press “Find
          the pointer” in its details in Footage.
        </p>
      )}
      {ORDER.map((kind) => (
        <LookFields key={kind} kind={kind} span={span} onLooks={setLooks} />
      ))}
      <Fades span={span} />
      <SpanTimes span={span} name="pointer look" />
      <SavedPresets
        kind="pointer"
        title="Saved looks"
        one="look"
        now={span.looks.length ? { looks: span.looks } : null}
        describe={(value) => pointerName(value)}
        onUse={({ value }) => setLooks(value.looks, false)}
      />
    </div>
  );
}

/** One look: whether it is on, and its settings. */
function LookFields({
  kind,
  span,
  onLooks,
}: {
  kind: PointerLookName;
  span: PointerSpan;
  onLooks: (looks: readonly PointerLook[], run: boolean) => void;
}) {
  const { label, schema, note } = lookKindOf({ kind });
  const look = span.looks.find((l) => l.kind === kind);
  const others = span.looks.filter((l) => l.kind !== kind);
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2 first-of-type:border-0">
      <legend className="sr-only">{label}</legend>
      <CheckField
        label={label}
        value={!!look}
        onChange={(on) => onLooks(on ? [...others, newLook(kind)] : others, false)}
      />
      {look && (
        <>
          <SettingFields
            schema={schema}
            value={look}
            onChange={(change, run) =>
              onLooks(
                span.looks.map((l) => (l === look ? { ...l, ...change } : l)),
                run,
              )
            }
          />
          {note && <p className="text-xs text-ink-2">{note}</p>}
        </>
      )}
    </fieldset>
  );
}

/** How long the looks take to come and to go. */
function Fades({ span }: { span: PointerSpan }) {
  const apply = useEditor((s) => s.apply);
  const seconds = (ticks: number) => Number(ticksToSeconds(ticks).toFixed(1));
  const field = (label: string, side: 'fadeIn' | 'fadeOut') => (
    <SliderField
      label={label}
      value={seconds(span[side])}
      min={0}
      max={3}
      step={0.1}
      unit="s"
      onChange={(v) =>
        apply('change-pointer-looks', { id: span.id, change: { [side]: secondsToTicks(v) } }, true)
      }
    />
  );
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="sr-only">Fades</legend>
      {field('Fade in', 'fadeIn')}
      {field('Fade out', 'fadeOut')}
    </fieldset>
  );
}
