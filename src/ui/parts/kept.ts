import type { Static, TSchema } from '@sinclair/typebox';
import { isOf } from '@/core/schema/check-plain';

/** A text that the browser keeps; null where it keeps none, or nothing at all. */
export function keptText(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** Has the browser keep a text; without a store it is forgotten with the page. */
export function keepText(key: string, text: string): void {
  try {
    localStorage.setItem(key, text);
  } catch {
    // There is no store, or it is full.
  }
}

/** Something that the browser keeps, if it is what is asked for; null otherwise. */
export function kept<S extends TSchema>(key: string, schema: S): Static<S> | null {
  try {
    const found: unknown = JSON.parse(keptText(key) ?? 'null');
    return isOf(schema, found) ? found : null;
  } catch {
    return null;
  }
}

/** Has the browser keep something for a later `kept`. */
export const keep = (key: string, value: unknown): void => keepText(key, JSON.stringify(value));
