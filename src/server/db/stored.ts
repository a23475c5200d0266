/* Values of rows as they may have become: a damaged cell must not keep anybody from the rest. */

/** The value of a JSON cell; `otherwise` when it is none. */
export function jsonOr<T>(text: unknown, otherwise: T): T {
  if (typeof text !== 'string') return otherwise;
  try {
    return (JSON.parse(text) as T) ?? otherwise;
  } catch {
    return otherwise;
  }
}

/** A date cell as ISO 8601; the beginning of 1970 when it is no date. */
export function isoOf(date: unknown): string {
  const found = date instanceof Date ? date : new Date(String(date));
  return (Number.isNaN(found.getTime()) ? new Date(0) : found).toISOString();
}
