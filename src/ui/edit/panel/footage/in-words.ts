/** In what share of something the pointer was found, in words. */
export const foundIn = (share: number, what: string): string =>
  `Pointer found in ${Math.round(share * 100)} % of ${what}`;

/** How many presses there are to be, in words. */
export const pressesInferred = (count: number): string =>
  `${count} press${count === 1 ? '' : 'es'} inferred`;
