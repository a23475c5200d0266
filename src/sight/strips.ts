import { intersect, type Rect } from '@/core/scale/rect';
import { appearanceIn } from '@/core/vision/follow/appearance';
import { searchPoints } from '@/core/vision/follow/search-points';
import { AROUND } from '@/core/vision/follow/surroundings';
import { SEARCH, wholePixels } from './content-looks';
import type { Pictures } from './pictures';
import { LookSearch } from './search';

/** How far something went, in whole pixels. */
export interface Went {
  readonly dx: number;
  readonly dy: number;
}

/**
 * How far what lies above and below a rectangle may have gone from the picture before to the newest.
 *
 * @param changed the tiles that did
 */
export function stripsWent(
  pictures: Pictures,
  { x, y, width, height }: Rect,
  changed: readonly number[],
): Went[] {
  const { heap, size } = pictures;
  const wide = { x: x - AROUND, width: width + 2 * AROUND, height: AROUND };
  return [
    { ...wide, y: y - AROUND },
    { ...wide, y: y + height },
  ].flatMap((strip) => {
    const within = intersect(strip, { x: 0, y: 0, ...size });
    if (within.width < AROUND || within.height < AROUND / 3) return [];
    const told = {
      ...wholePixels(within),
      ...{ width: Math.floor(within.width), height: Math.floor(within.height) },
    };
    const appearance = appearanceIn(pictures.luma(1), told);
    const points = searchPoints(appearance);
    if (!points) return [];
    using search = new LookSearch(heap, pictures, { ...appearance, points }, 0, SEARCH);
    return search
      .find(changed)
      .map(wholePixels)
      .map((found) => ({ dx: found.x - told.x, dy: found.y - told.y }));
  });
}
