import { Type, type Static, type TObject } from '@sinclair/typebox';
import { isOf } from '../schema/check-plain';
import { oneOf, strict } from '../schema/parts';
import { settingsOf } from '../schema/setting';
import { kindOf, KINDS, type CalloutKindName } from './kinds';
import type { Callout } from './model';

/** How a callout looks and comes and goes, without where and when: to be used for others. */
export const CalloutStyle = strict({
  kind: oneOf(Object.keys(KINDS) as CalloutKindName[], { description: 'What it was taken from.' }),
  settings: Type.Record(
    Type.String({ pattern: '^[a-zA-Z]{1,40}$' }),
    Type.Union([Type.Number(), Type.String({ maxLength: 100 }), Type.Boolean()]),
    { maxProperties: 40, additionalProperties: false },
  ),
});
export type CalloutStyle = Static<typeof CalloutStyle>;

/** What a count counts over says what it means, not how it looks. */
const MEANING: readonly string[] = ['over'];

const looksOf = (schema: TObject) => settingsOf(schema).filter(([name]) => !MEANING.includes(name));

/** The style of a callout. */
export function styleOf(callout: Callout): CalloutStyle {
  const all = callout as unknown as CalloutStyle['settings'];
  const names = looksOf(kindOf(callout).schema).map(([name]) => name);
  return {
    kind: callout.kind,
    settings: Object.fromEntries(names.map((name) => [name, all[name]!])),
  };
}

/**
 * What becomes of a callout in a style: the settings that its kind has by the same name and title,
 * where it knows the value. A style of another kind leaves the rest as it is.
 */
export function inStyle(callout: Callout, style: CalloutStyle): Partial<Callout> {
  const from = kindOf(style).schema.properties;
  const taken = looksOf(kindOf(callout).schema).filter(
    ([name, part]) =>
      Object.hasOwn(style.settings, name) &&
      from[name]?.title === part.title &&
      isOf(part, style.settings[name]),
  );
  return Object.fromEntries(taken.map(([name]) => [name, style.settings[name]]));
}
