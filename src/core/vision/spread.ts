/** So many of a list, evenly spread; all of it several times where it is shorter than asked for. */
export function spread<T>(list: readonly T[], count: number): T[] {
  if (!list.length) return [];
  return Array.from({ length: count }, (_, i) => list[Math.floor((i * list.length) / count)]!);
}

/** A list, or so many of it, evenly spread, where it is longer. */
export const thinned = <T>(list: readonly T[], most: number): T[] =>
  spread(list, Math.min(most, list.length));
