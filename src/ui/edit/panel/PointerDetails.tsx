'use client';
import { LOOKS, lookKindOf, type PointerLookName } from '@/core/pointer/looks';
import { newLook, type PointerLook } from '@/core/pointer/model';
import { CheckField } from '../../parts/fields';
import { SettingFields } from '../../parts/setting-fields';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { SpanTimes } from './SpanTimes';

/** From front to back, as a person sees them. */
const ORDER = (Object.keys(LOOKS) as PointerLookName[]).reverse();

/** How the pointer looks for a while: each look switched on or off, with its settings. */
export function PointerDetails({ id }: { id: string }) {
  const span = useEditor((s) => s.project.pointer.find((p) => p.id === id));
  const apply = useEditor((s) => s.apply);
  const tracks = useEditor((s) => Object.keys(s.sources.pointers).length);
  if (!span) return null;
  const setLooks = (label: string, looks: PointerLook[], run: boolean) =>
    apply('change-pointer-looks', { id, change: { looks } }, run);
  return (
    <div className="grid gap-2">
      <Heading title="Pointer" />
      {!tracks && (
        <p className="text-caution">
          No recording has a pointer track yet, so there is nothing to follow. Press “Find the
          pointer” in the details of a screen recording in Footage, or attach one there.
        </p>
      )}
      {ORDER.map((kind) => {
        const { label, schema } = lookKindOf({ kind });
        const look = span.looks.find((l) => l.kind === kind);
        const others = span.looks.filter((l) => l.kind !== kind);
        return (
          <fieldset
            key={kind}
            className="grid gap-2 border-t border-line pt-2 first-of-type:border-0"
          >
            <legend className="sr-only">{label}</legend>
            <CheckField
              label={label}
              value={!!look}
              onChange={(on) => setLooks(label, on ? [...others, newLook(kind)] : others, false)}
            />
            {look && (
              <SettingFields
                schema={schema}
                value={look}
                onChange={(change, run) =>
                  setLooks(
                    label,
                    span.looks.map((l) => (l === look ? { ...l, ...change } : l)),
                    run,
                  )
                }
              />
            )}
          </fieldset>
        );
      })}
      <SpanTimes span={span} name="pointer look" />
    </div>
  );
}
