import { silence, type Stereo } from './mix';

/**
 * Reads samples of a recording; from anywhere, but quickest in order. Silence where it has none.
 */
export type ReadSound = (from: number, count: number) => Promise<Stereo>;

/** Reads samples of a recording from anywhere, before its beginning as well: there is silence. */
export async function readAnywhere(read: ReadSound, from: number, count: number): Promise<Stereo> {
  const missing = Math.min(count, Math.max(0, -from));
  if (!missing) return read(from, count);
  const out = silence(count);
  if (missing === count) return out;
  const rest = await read(0, count - missing);
  for (const side of [0, 1] as const) out[side].set(rest[side], missing);
  return out;
}
