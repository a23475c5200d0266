import { intersect, meet, padded, type Rect } from '../../scale/rect';
import { thinned } from '../spread';
import { cutOut, TILE, type Luma } from '../luma';
import { appearanceOf, BLOCK, type Block } from './appearance';
import { correlation } from './likeness';

/** What lies this far around a content goes along with it, mostly, in pixels. */
export const AROUND = 96;
/** So many squares of it are compared. */
const MOST = 24;
/** A square that went along correlates by this much. */
const ALONG = 0.85;

/** What lies around a content in a picture, for telling whether it moved as the content did. */
export class Surroundings {
  private readonly blocks: readonly Block[];

  /**
   * @param picture the one in which the content was last seen
   * @param content where it was
   */
  constructor(picture: Luma, content: Rect) {
    const { width, height } = picture;
    const around = intersect(padded(content, AROUND), { x: 0, y: 0, width, height });
    const [left, top] = [Math.floor(around.x), Math.floor(around.y)];
    const [w, h] = [Math.floor(around.width), Math.floor(around.height)];
    if (w < BLOCK || h < BLOCK) {
      this.blocks = [];
      return;
    }
    const outside = appearanceOf(cutOut(picture, left, top, w, h), w, h, 4 * MOST)
      .blocks.map((block) => ({ ...block, x: block.x + left, y: block.y + top }))
      .filter(({ x, y }) => !meet({ x, y, width: BLOCK, height: BLOCK }, content));
    this.blocks = thinned(outside, MOST);
  }

  /** Whether there is anything around. */
  get any(): boolean {
    return this.blocks.length > 2;
  }

  /** The share of it, 0 to 1, that a picture shows moved by so many whole pixels. */
  movedBy(picture: Luma, dx: number, dy: number): number {
    let [along, inside] = [0, 0];
    for (const block of this.blocks) {
      const found = correlation(block, picture, dx, dy);
      if (found === null) continue;
      inside++;
      // In dark colours it is the same page.
      if (Math.abs(found) >= ALONG) along++;
    }
    return inside ? along / inside : 0;
  }
}

/**
 * Those of some tiles that touch a rectangle.
 *
 * @param across so many tiles are in a row of the picture
 */
export function within(tiles: readonly number[], across: number, rect: Rect): number[] {
  const left = Math.floor(rect.x / TILE);
  const right = Math.floor((rect.x + rect.width - 1) / TILE);
  const top = Math.floor(rect.y / TILE);
  const bottom = Math.floor((rect.y + rect.height - 1) / TILE);
  return tiles.filter((tile) => {
    const column = tile % across;
    const row = (tile - column) / across;
    return column >= left && column <= right && row >= top && row <= bottom;
  });
}
