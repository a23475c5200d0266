import { intersect, type Rect } from '@/core/scale/rect';
import { appearanceIn } from '@/core/vision/follow/appearance';
import { searchPoints } from '@/core/vision/follow/search-points';
import { AROUND, Surroundings } from '@/core/vision/follow/surroundings';
import { TILE, tilesOf } from '@/core/vision/luma';
import { SEARCH, wholePixels } from './content-looks';
import type { Pictures } from './pictures';
import { LookSearch, type Sought } from './search';

/** How far something went, in whole pixels. */
export interface Went {
  readonly dx: number;
  readonly dy: number;
}

/** What lies above and below a rectangle in the picture before, for telling where it went. */
export class Strips {
  private readonly all: readonly { readonly told: Rect; readonly sought: Sought }[];

  constructor(
    private readonly pictures: Pictures,
    { x, y, width, height }: Rect,
  ) {
    const picture = { x: 0, y: 0, ...pictures.size };
    const wide = { x: x - AROUND, width: width + 2 * AROUND, height: AROUND };
    this.all = [y - AROUND, y + height].flatMap((top) => {
      const within = intersect({ ...wide, y: top }, picture);
      if (within.width < AROUND || within.height < AROUND / 3) return [];
      const told = {
        ...wholePixels(within),
        ...{ width: Math.floor(within.width), height: Math.floor(within.height) },
      };
      const appearance = appearanceIn(pictures.luma(1), told);
      const points = searchPoints(appearance);
      return points ? [{ told, sought: { ...appearance, points } }] : [];
    });
  }

  /**
   * How far they may have gone to the newest picture.
   *
   * @param changed the tiles that did
   * @param anywhere else up, down or to the side only, as pages are scrolled, which costs little to
   *   look for
   */
  went(changed: readonly number[], anywhere: boolean): Went[] {
    return this.all.flatMap(({ told, sought }) => {
      const [column, row] = [Math.floor(told.x / TILE), Math.floor(told.y / TILE)];
      using search = new LookSearch(this.pictures.heap, this.pictures, sought, 0, SEARCH);
      return search
        .find(changed, (c, r) => anywhere || c === column || r === row)
        .map(wholePixels)
        .map((found) => ({ dx: found.x - told.x, dy: found.y - told.y }));
    });
  }
}

/** A page whose middle went along by this share was scrolled, or dragged. */
const ALONG = 0.5;

/**
 * Whether what changed from the picture before to the newest went somewhere else as it was, as when
 * a page is scrolled: then it was not magnified.
 *
 * @param changed the tiles that did; not none
 */
export function wentAlong(pictures: Pictures, changed: readonly number[]): boolean {
  const { across } = tilesOf(pictures.size);
  let [left, top, right, bottom] = [Infinity, Infinity, 0, 0];
  for (const tile of changed) {
    const [column, row] = [tile % across, Math.floor(tile / across)];
    [left, right] = [Math.min(left, column), Math.max(right, column + 1)];
    [top, bottom] = [Math.min(top, row), Math.max(bottom, row + 1)];
  }
  const [width, height] = [(right - left) * TILE, (bottom - top) * TILE];
  const middle = {
    ...{ x: left * TILE + width / 4, y: top * TILE + height / 4 },
    ...{ width: width / 2, height: height / 2 },
  };
  const about = new Surroundings(pictures.luma(1), middle);
  if (!about.any) return false;
  const strips = new Strips(pictures, middle);
  return [false, true].some((anywhere) =>
    strips
      .went(changed, anywhere)
      .some(({ dx, dy }) => about.movedBy(pictures.luma(0), dx, dy) >= ALONG),
  );
}
