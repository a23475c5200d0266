/** The quietest level that meters show, and from where they warn, in dBFS. */
export const METER_FLOOR_DB = -48;
const LOUD_DB = -1;

/** How much of a meter is full at a level in dBFS, 0 to 1. */
export const meterShare = (level: number): number =>
  Math.min(1, Math.max(0, 1 - level / METER_FLOOR_DB));

/** Its colour at a level in dBFS. */
export const meterColor = (level: number): string =>
  level > LOUD_DB ? 'var(--fault)' : 'var(--good)';
