import { Type, type Static, type TObject, type TSchema } from '@sinclair/typebox';
import { Color } from './parts';

/** How a setting is shown: what a schema says beside its check. */
export interface NumberSetting {
  /** What it is called in Details. */
  readonly label: string;
  /** Empty for a bare number. */
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly fallback: number;
  /** What is shown is the value times this, such as 100 for shares in percent. */
  readonly factor: number;
}

type Shown = {
  readonly label: string;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly fallback: number;
  readonly factor?: number;
  /** The part of the range that a slider covers, where all of it would be too coarse. */
  readonly usual?: readonly [number, number];
  readonly description?: string;
};

/** A number that a person sets, with everything that its field in Details needs. */
export const numberSetting = ({ label, min, max, fallback, ...shown }: Shown) =>
  Type.Number({ title: label, minimum: min, maximum: max, default: fallback, ...shown });

/** A share of a whole, 0 to 1, shown in percent. */
export const shareSetting = (label: string, fallback: number, more: Partial<Shown> = {}) =>
  numberSetting({ label, unit: '%', min: 0, max: 1, step: 0.01, factor: 100, fallback, ...more });

/** A colour that a person sets. */
export const colorSetting = (label: string, fallback: string) => ({
  ...Color,
  title: label,
  default: fallback,
});

/** A switch that a person sets. */
export const switchSetting = (label: string, fallback: boolean) =>
  Type.Boolean({ title: label, default: fallback });

/**
 * How the slider of a number is drawn, read from the number's schema.
 *
 * @throws RangeError for a schema that says too little, which is an error of the program.
 */
export function readNumberSetting(schema: TSchema): NumberSetting {
  const { title, unit, minimum, maximum, step, default: fallback, factor = 1, usual } = schema;
  if (![minimum, maximum, step, fallback].every(Number.isFinite) || typeof title !== 'string')
    throw new RangeError('The schema is none of a setting.');
  const [min, max] = (usual as [number, number] | undefined) ?? [minimum, maximum];
  return { label: title, unit: String(unit), min, max, step, fallback, factor: Number(factor) };
}

/** Which kind of field a setting has in Details. */
export type SettingKind = 'number' | 'choice' | 'color' | 'switch';

/** The kind of field that a schema asks for; null for what is no setting. */
export function settingKind(schema: TSchema): SettingKind | null {
  if (typeof schema.title !== 'string') return null;
  if (Array.isArray(schema.enum)) return 'choice';
  if (schema.type === 'number') return 'number';
  if (schema.type === 'boolean') return 'switch';
  return schema.pattern === Color.pattern ? 'color' : null;
}

/** The words of a choice with what a person sees for each. */
export function readChoices(schema: TSchema): (readonly [word: string, label: string])[] {
  const labels = (schema.labels ?? []) as readonly string[];
  return (schema.enum as readonly string[]).map((word, i) => [word, labels[i] ?? word] as const);
}

/** The settings of an object in order: those of its properties that have a field. */
export const settingsOf = (schema: TObject): (readonly [name: string, schema: TSchema])[] =>
  Object.entries(schema.properties).filter(([, part]) => settingKind(part) !== null);

/** The default of each property that has one, as its schema says; of the parts within, too. */
export function defaultsOf<S extends TObject>(schema: S): Static<S> {
  const found = Object.entries(schema.properties).flatMap(([key, part]) => {
    if (part.default !== undefined) return [[key, structuredClone(part.default) as unknown]];
    return part.type === 'object' ? [[key, defaultsOf(part as TObject)]] : [];
  });
  return Object.fromEntries(found) as Static<S>;
}
