import {
  Type,
  type SchemaOptions,
  type Static,
  type TProperties,
  type TSchema,
} from '@sinclair/typebox';

/*
 * The pieces that every schema of the house is built of. A schema is the one description of a
 * stored value: its TypeScript type, its check, the file in `docs/schemas` and the settings shown
 * in Details all come from it.
 */

/** An object that has all of these properties and no others. */
export const strict = <P extends TProperties>(properties: P, more: { description?: string } = {}) =>
  Type.Object(properties, { additionalProperties: false, ...more });

/** A value, or null for none. */
export const nullable = <S extends TSchema>(schema: S, more: SchemaOptions = {}) =>
  Type.Union([schema, Type.Null()], more);

/** Frames a second, as a fraction. */
export const Rate = strict({
  num: Type.Integer({ minimum: 1 }),
  den: Type.Integer({ minimum: 1 }),
});

/**
 * One of some words. The words that a person sees for them can be given as `labels`, in the order
 * of the words.
 */
export const oneOf = <const W extends readonly string[]>(
  words: W,
  more: {
    title?: string;
    description?: string;
    labels?: readonly string[];
    default?: W[number];
  } = {},
) => Type.Unsafe<W[number]>({ enum: [...words], ...more });

/** The name of a thing within its document. */
export const Id = Type.String({ minLength: 1, maxLength: 64 });

/** An instant of a timeline or of footage, in ticks. */
export const Time = Type.Integer({ minimum: 0, maximum: Number.MAX_SAFE_INTEGER });

/** A length of time in ticks, above zero. */
export const Length = Type.Integer({ minimum: 1, maximum: Number.MAX_SAFE_INTEGER });

/** A colour as `#rrggbb`. */
export const Color = Type.String({ pattern: '^#[0-9a-fA-F]{6}$' });

/** A share of a whole, 0 to 1. */
export const Share = Type.Number({ minimum: 0, maximum: 1 });

/** A level in dB. */
export const Decibels = Type.Number({ minimum: -96, maximum: 24 });

/** A rectangle in footage pixels, y down, at least two pixels wide and high. */
export const FootageRect = strict({
  x: Type.Number(),
  y: Type.Number(),
  width: Type.Number({ minimum: 2 }),
  height: Type.Number({ minimum: 2 }),
});
export type FootageRect = Static<typeof FootageRect>;

/** A point; its space is said where it is used. */
export const Point = strict({ x: Type.Number(), y: Type.Number() });
export type Point = Static<typeof Point>;
