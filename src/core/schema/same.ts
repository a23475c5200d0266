/** Whether two JSON values are equal, their properties in any order. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a))
    return (
      Array.isArray(b) && a.length === b.length && a.every((v, i) => same(v, (b as unknown[])[i]))
    );
  if (Array.isArray(b)) return false;
  const keys = Object.keys(a);
  if (keys.length !== Object.keys(b).length) return false;
  for (const key of keys)
    if (!same((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
      return false;
  return true;
}
