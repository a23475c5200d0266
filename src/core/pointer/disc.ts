/**
 * Opacity of a soft disc at a distance from its middle, both as shares (distance 1 is
 * the rim). Softness 0 is a hard disc, 1 fades all the way from the middle.
 */
export function discProfile(distance: number, softness: number): number {
  if (distance >= 1) return 0;
  const inner = 1 - softness;
  if (distance <= inner) return 1;
  const u = (1 - distance) / softness;
  return u * u * (3 - 2 * u);
}
