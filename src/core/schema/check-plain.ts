import { type Static, type TSchema, TypeRegistry } from '@sinclair/typebox';
import { Check } from '@sinclair/typebox/value';

/* How schemas that are written as they are (`Type.Unsafe`) are checked: as words or variants. */

interface Words {
  readonly enum: readonly unknown[];
}

interface Variants {
  readonly discriminator: { readonly propertyName: string };
  readonly oneOf: readonly (TSchema & {
    readonly properties: Readonly<Record<string, { readonly const?: unknown }>>;
  })[];
}

function checkUnsafe(schema: Partial<Words & Variants>, value: unknown): boolean {
  if (schema.enum) return schema.enum.includes(value);
  if (!schema.oneOf || !schema.discriminator)
    throw new TypeError('A schema that is written as it is must be of words or of variants.');
  if (typeof value !== 'object' || value === null) return false;
  const { propertyName } = schema.discriminator;
  const found = Object.hasOwn(value, propertyName)
    ? (value as Readonly<Record<string, unknown>>)[propertyName]
    : undefined;
  const variant = schema.oneOf.find((one) => one.properties[propertyName]?.const === found);
  return variant !== undefined && Check(variant, value);
}

/**
 * Whether a value has a schema's type. Reads the schema instead of compiling it, as a page must
 * whose policy lets no text become code; slower than `checkOf` (some microseconds a value), and
 * without saying what is wrong. Of schemas that are written as they are (`Type.Unsafe`) it knows
 * lists of words and variants told by a property.
 *
 * @throws TypeError for any other such schema
 */
export function isOf<S extends TSchema>(schema: S, value: unknown): value is Static<S> {
  if (!TypeRegistry.Has('Unsafe')) TypeRegistry.Set('Unsafe', checkUnsafe);
  return Check(schema, value);
}
