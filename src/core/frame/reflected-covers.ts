import { intersect, padded } from '../scale/rect';
import { everyVideoLayer, type Layer, type RegionLayer, type VideoLayer } from './plan';

/**
 * What covers on the frame hide is hidden in reflections too, upside down as it is seen there: the
 * same effects where the polished ground shows what lies under them. Even output pixels, within
 * each reflection.
 *
 * @param picture what the covers lie over
 * @param callouts layers of which some may be covers
 */
export function reflectedCovers(
  picture: readonly Layer[],
  callouts: readonly Layer[],
): RegionLayer[] {
  const covers = callouts.filter(
    (layer): layer is RegionLayer => layer.kind === 'region' && layer.effect.kind !== 'dim',
  );
  return grounds(picture).flatMap((ground) =>
    covers.flatMap(({ area, effect }) => {
      const seen = reflected(area, ground);
      return seen ? [{ kind: 'region' as const, area: seen, effect }] : [];
    }),
  );
}

type Ground = Pick<VideoLayer, 'destination' | 'turn'> & {
  readonly reflection: NonNullable<VideoLayer['reflection']>;
};

/** What is reflected in a picture, each once: who stands before a picture shares its ground. */
function grounds(picture: readonly Layer[]): Ground[] {
  const found = new Map<string, Ground>();
  for (const { destination, turn, reflection } of everyVideoLayer(picture))
    if (reflection)
      found.set(JSON.stringify([destination, reflection]), { destination, turn, reflection });
  return [...found.values()];
}

/** Where an area is seen in a reflection; null where it is not. */
function reflected(
  area: RegionLayer['area'],
  { destination, turn, reflection: { ground, end } }: Ground,
): RegionLayer['area'] | null {
  // With the ring, which stands on the same ground. Who is turned is seen beyond their box.
  const around = padded(destination, ground - destination.y - destination.height);
  const { x, width } = turn ? area : intersect(area, around);
  const y = Math.max(ground, 2 * ground - area.y - area.height);
  const height = Math.min(end, 2 * ground - area.y) - y;
  return width >= 2 && height >= 2 ? { ...area, x, y, width, height } : null;
}
