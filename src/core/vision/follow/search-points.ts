import type { LookPoint } from '../look';
import { scattered, thinned } from '../spread';
import { BLOCK, type Appearance, type Block } from './appearance';

/** So many dark and so many light points at most. */
const MOST_OF_A_KIND = 32;
/** With fewer of either, places can't be told from each other. */
const LEAST_OF_A_KIND = 10;
/** How far codecs alter what stands still. */
const NOISE = 10;
/** Points are this far on one side of their square's mean, whatever is within their bounds. */
const CLEAR = 4;

/** A place of a square at which a point may be, with the least and most that it becomes. */
interface Spot {
  readonly block: Block;
  readonly at: number;
  readonly low: number;
  readonly high: number;
}

/**
 * The places of a square that stay dark, or light, when the picture moves by half a pixel, with the
 * least and the most that they become.
 */
function spotsOf(block: Block, dark: Spot[], light: Spot[]): void {
  const { samples } = block;
  for (let v = 1; v < BLOCK - 1; v++)
    for (let u = 1; u < BLOCK - 1; u++) {
      const at = v * BLOCK + u;
      const own = samples[at]!;
      if (Math.abs(own) <= CLEAR) continue;
      let [low, high] = [own, own];
      for (let row = at - BLOCK; row <= at + BLOCK; row += BLOCK)
        for (let near = row - 1; near <= row + 1; near++) {
          const between = (own + samples[near]!) / 2;
          if (between < low) low = between;
          if (between > high) high = between;
        }
      if (high < -CLEAR) dark.push({ block, at, low, high });
      else if (low > CLEAR) light.push({ block, at, low, high });
    }
}

const meanOf = (values: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i]!;
  return sum / Math.max(1, values.length);
};

/**
 * Points that a content can be looked for by: as many dark as light ones, each with the values that
 * it may have when the content lies between pixels and was compressed. Those that are furthest from
 * the ground come first, since most places show nothing else. Null where there are too few.
 *
 * @param noise how far codecs alter what stands still, in code values
 */
export function searchPoints({ blocks, luma }: Appearance, noise = NOISE): LookPoint[] | null {
  const [dark, light]: [Spot[], Spot[]] = [[], []];
  for (const block of blocks) spotsOf(block, dark, light);
  const each = Math.min(MOST_OF_A_KIND, dark.length, light.length);
  if (each < LEAST_OF_A_KIND) return null;
  const ground = meanOf(luma);
  const [darker, lighter] = [thinned(dark, each), thinned(light, each)];
  const apart = (spots: readonly Spot[]) =>
    Math.abs(ground - meanOf(spots.map(({ block, low, high }) => block.mean + (low + high) / 2)));
  const [first, then] = apart(darker) > apart(lighter) ? [darker, lighter] : [lighter, darker];
  return [...scattered(first), ...scattered(then)].map(({ block, at, low, high }) => ({
    ...{ x: block.x + (at % BLOCK), y: block.y + Math.floor(at / BLOCK) },
    low: Math.max(0, Math.round(block.mean + low) - noise),
    high: Math.min(255, Math.round(block.mean + high) + noise),
  }));
}
