import type { Rect } from '@/core/scale/rect';
import type { Point } from '@/core/schema/parts';
import { appearanceIn, whatIsTold, type Appearance } from '@/core/vision/follow/appearance';
import { worstPart } from '@/core/vision/follow/itself';
import { likenessAt } from '@/core/vision/follow/likeness';
import { refined } from '@/core/vision/follow/refine';
import { searchPoints } from '@/core/vision/follow/search-points';
import { LEAST_CHANGE } from '@/core/vision/luma';
import { framesPerSecond } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { FEWEST, inTiles, Pictures } from './pictures';
import { LookSearch } from './search';
import type { LumaRecording } from './recording';

/** A place shows content of which so much is seen, with each letter as well as this. */
const SEEN = 0.92;
const ITSELF = 0.85;
/** More places than this of one content are told as the first of them. */
const SEARCH = { worst: 0.12, most: 8 };

/**
 * All places of a recording's pictures that show what a rectangle shows at some time: looked for in
 * each picture anew and all over it, whatever is known of where it went.
 *
 * @param ms when the rectangle shows it, in milliseconds
 * @param each is told the places in each picture by its number: the upper left corners of what is
 *   told by, which is the rectangle in whole pixels
 * @returns what it looks like; null where it shows nothing that could be told again
 */
export function eachSighting(
  heap: KernelHeap,
  rect: Rect,
  ms: number,
  { size, rate, open }: LumaRecording,
  each: (index: number, places: readonly Point[]) => void,
): Appearance | null {
  const fps = framesPerSecond(rate);
  using pictures = new Pictures(heap, inTiles(size), 2);
  using marked = open(Math.floor((ms * fps) / 1000 + 1e-3) / fps);
  if (!pictures.take((into) => marked.read(into))) return null;
  const told = whatIsTold(rect, pictures.luma(0));
  const appearance = appearanceIn(pictures.luma(0), told);
  const points = searchPoints(appearance);
  if (!points) return null;
  using search = new LookSearch(heap, pictures, { ...appearance, points }, 0, SEARCH);
  const shows = ({ x, y }: Point): boolean => {
    const picture = pictures.luma(0);
    if (likenessAt(appearance, picture, x, y).seen < SEEN) return false;
    const at = refined(appearance, picture, { x, y });
    return worstPart(appearance, picture, at.x, at.y) >= ITSELF;
  };
  let places: Point[] = [];
  using stream = open(0);
  for (let index = 0; pictures.take((into) => stream.read(into)); index++) {
    // The first is held against the marked one, from which all may differ.
    const changed = pictures.changedSince(1, LEAST_CHANGE, FEWEST);
    if (!index) places = [told];
    if (changed.length || !index) {
      const found = search
        .find(changed)
        .map(({ x, y }) => ({ x: Math.round(x), y: Math.round(y) }));
      const fresh = found.filter(({ x, y }) => !places.some((one) => one.x === x && one.y === y));
      places = [...places, ...fresh].filter(shows).map(({ x, y }) => ({ x, y }));
    }
    each(index, places);
  }
  return appearance;
}
