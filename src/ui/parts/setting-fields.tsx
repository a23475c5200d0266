'use client';
import type { Static, TObject, TSchema } from '@sinclair/typebox';
import { assertNever } from '@/core/assert-never';
import { readChoices, readNumberSetting, settingKind, settingsOf } from '@/core/schema/setting';
import { CheckField, ColorField, SelectField, SliderField } from './fields';

/** Decimals that a step asks for. */
const decimals = (step: number): number => Math.max(0, Math.ceil(-Math.log10(step) - 1e-9));

/**
 * The field of one setting, as its schema describes it. What is dragged or picked comes in many
 * small changes; `run` tells them from a single choice.
 */
export function SettingField<S extends TSchema>({
  schema,
  label,
  value,
  onChange,
}: {
  schema: S;
  /** Where the setting is called otherwise than usual. */
  label?: string;
  value: Static<S>;
  onChange: (value: Static<S>, run: boolean) => void;
}) {
  const kind = settingKind(schema);
  const name = label ?? schema.title ?? '';
  // What the schema's kind says of the value is more than the compiler can know.
  const set = (next: unknown, run: boolean) => onChange(next as Static<S>, run);
  switch (kind) {
    case 'number': {
      const { unit, min, max, step, factor } = readNumberSetting(schema);
      return (
        <SliderField
          label={name}
          value={value as number}
          min={min}
          max={max}
          step={step}
          unit={unit}
          factor={factor}
          usual={typeof schema.default === 'number' ? schema.default : undefined}
          show={(v) => (v * factor).toFixed(decimals(step * factor))}
          onChange={(v) => set(v, true)}
        />
      );
    }
    case 'choice':
      return (
        <SelectField
          label={name}
          value={value as string}
          options={readChoices(schema)}
          onChange={(v) => set(v, false)}
        />
      );
    case 'color':
      return <ColorField label={name} value={value as string} onChange={(v) => set(v, true)} />;
    case 'switch':
      return <CheckField label={name} value={value as boolean} onChange={(v) => set(v, false)} />;
    case null:
      return null;
    default:
      return assertNever(kind);
  }
}

/**
 * The fields of all settings of an object, in the order of its schema; in two columns where there
 * is room for them.
 */
export function SettingFields<S extends TObject>({
  schema,
  value,
  only,
  onChange,
}: {
  schema: S;
  value: Static<S>;
  /** Names of the settings that are shown; all without. */
  only?: readonly (keyof Static<S>)[];
  onChange: (change: Partial<Static<S>>, run: boolean) => void;
}) {
  return (
    <div className="grid gap-x-5 gap-y-2 @md:grid-cols-2 @md:[--label-width:5.5rem]">
      {settingsOf(schema)
        .filter(([name]) => !only || (only as readonly string[]).includes(name))
        .map(([name, part]) => (
          <SettingField
            key={name}
            schema={part}
            // One that the document does not name, since it is older, is as usual.
            value={(value as Record<string, unknown>)[name] ?? part.default}
            onChange={(next, run) =>
              onChange({ [name]: next } as unknown as Partial<Static<S>>, run)
            }
          />
        ))}
    </div>
  );
}
