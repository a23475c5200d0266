import { DimAround, Halo } from '../project/parts/pointer';
import { defaultsOf } from '../schema/setting';

/** The halo that is turned on first: warm, soft, wide enough to be seen on a laptop. */
export const DEFAULT_HALO: Halo = defaultsOf(Halo);

/** The dimmed surroundings that are turned on first. */
export const DEFAULT_DIM: DimAround = defaultsOf(DimAround);

/**
 * Opacity of a halo at a distance from its middle, both as shares (distance 1 is
 * the rim). Softness 0 is a hard disc, 1 fades all the way from the middle.
 */
export function haloProfile(distance: number, softness: number): number {
  if (distance >= 1) return 0;
  const inner = 1 - softness;
  if (distance <= inner) return 1;
  const u = (1 - distance) / softness;
  return u * u * (3 - 2 * u);
}
