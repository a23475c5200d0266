/**
 * How many items at the front of a list have a property that no item after one without it has: in a
 * sorted list, those up to a limit. Looks at a number of items that grows with the logarithm of the
 * list's length.
 */
export function countFront<T>(list: ArrayLike<T>, has: (item: T) => boolean): number {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (has(list[middle]!)) low = middle + 1;
    else high = middle;
  }
  return low;
}
