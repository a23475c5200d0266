/*
 * What light and colours of a recording are changed around, in 8-bit code values of ITU-R BT.709,
 * limited range. The compositor changes them, and matching one take to another reckons with it.
 */

/** Black in luma, and the range from there to white. */
export const BLACK = 16;
export const RANGE = 219;
/** Mid-grey in luma, around which contrast works. */
export const MIDDLE = 126;
/** What the warmest light adds to white, to both colour differences. */
export const WARMEST = { u: -32, v: 24 };
