/** So many of a list, evenly spread; all of it several times where it is shorter than asked for. */
export function spread<T>(list: readonly T[], count: number): T[] {
  if (!list.length) return [];
  return Array.from({ length: count }, (_, i) => list[Math.floor((i * list.length) / count)]!);
}

/** A list, or so many of it, evenly spread, where it is longer. */
export const thinned = <T>(list: readonly T[], most: number): T[] =>
  spread(list, Math.min(most, list.length));

/** A list in an order in which its first few stand for all of it, always the same. */
export function scattered<T>(list: readonly T[]): T[] {
  // A stride that shares no divisor with the length visits each once.
  const step = [97, 89, 83, 79].find((prime) => list.length % prime !== 0) ?? 1;
  return list.map((_, i) => list[(i * step) % list.length]!);
}
