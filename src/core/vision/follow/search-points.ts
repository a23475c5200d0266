import type { LookPoint } from '../look';
import { thinned } from '../spread';
import { BLOCK, type Appearance, type Block } from './appearance';

/** So many dark and so many light points at most. */
const MOST_OF_A_KIND = 32;
/** With fewer of either, places can't be told from each other. */
const LEAST_OF_A_KIND = 10;
/** How far codecs alter what stands still. */
const NOISE = 10;
/** Points are this far on one side of their square's mean, whatever is within their bounds. */
const CLEAR = 4;

/** What a sample becomes when the picture moves by half a pixel: the least and most of it. */
function boundsOf({ samples }: Block, u: number, v: number): [low: number, high: number] {
  const own = samples[v * BLOCK + u]!;
  let [low, high] = [own, own];
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      const between = (own + samples[(v + dy) * BLOCK + u + dx]!) / 2;
      low = Math.min(low, between);
      high = Math.max(high, between);
    }
  return [low, high];
}

/**
 * Points that a content can be looked for by: as many dark as light ones, each with the values that
 * it may have when the content lies between pixels and was compressed. Null where there are too few.
 *
 * @param noise how far codecs alter what stands still, in code values
 */
export function searchPoints({ blocks }: Appearance, noise = NOISE): LookPoint[] | null {
  const dark: LookPoint[] = [];
  const light: LookPoint[] = [];
  for (const block of blocks)
    for (let v = 1; v < BLOCK - 1; v++)
      for (let u = 1; u < BLOCK - 1; u++) {
        const [low, high] = boundsOf(block, u, v);
        const side = high < -CLEAR ? dark : low > CLEAR ? light : null;
        if (!side) continue;
        side.push({
          ...{ x: block.x + u, y: block.y + v },
          low: Math.max(0, Math.round(block.mean + low) - noise),
          high: Math.min(255, Math.round(block.mean + high) + noise),
        });
      }
  const each = Math.min(MOST_OF_A_KIND, dark.length, light.length);
  if (each < LEAST_OF_A_KIND) return null;
  return [...thinned(dark, each), ...thinned(light, each)];
}
