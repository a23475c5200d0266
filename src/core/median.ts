/** The middle one of some values, of which there is one at least; of an even number the upper one. */
export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1]!;
