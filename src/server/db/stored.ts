import type { Static, TSchema } from '@sinclair/typebox';
import { isOf } from '@/core/schema/check-plain';

/* Values of rows as they may have become: a damaged cell must not keep anybody from the rest. */

/** What a JSON cell holds; undefined when it is no JSON. */
export function parsed(text: unknown): unknown {
  if (typeof text !== 'string') return undefined;
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** The value of a JSON cell that has a schema's type; `otherwise` when it does not. */
export function jsonOr<S extends TSchema, T>(
  schema: S,
  text: unknown,
  otherwise: T,
): Static<S> | T {
  const value = parsed(text);
  return isOf(schema, value) ? value : otherwise;
}

/** A cell that holds one of some words; `otherwise` when it holds another. */
export const wordOr = <W extends string, T>(
  words: readonly W[],
  cell: unknown,
  otherwise: T,
): W | T => words.find((word) => word === cell) ?? otherwise;

/** A whole number that may be too large for a column's own type, which then comes as text. */
export const wholeOr = <T>(cell: unknown, otherwise: T): number | T => {
  const value = cell === null ? NaN : Number(cell);
  return Number.isSafeInteger(value) ? value : otherwise;
};

/** A date cell as ISO 8601; the beginning of 1970 when it is no date. */
export function isoOf(date: unknown): string {
  const found = date instanceof Date ? date : new Date(String(date));
  return (Number.isNaN(found.getTime()) ? new Date(0) : found).toISOString();
}
