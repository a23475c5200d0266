import { isWithin, padded, unite, type Rect } from '../scale/rect';
import { TILE } from './luma';

/** A part of the picture that changed, in its pixels, and how many tiles of it did. */
export interface ChangedBox extends Rect {
  readonly tiles: number;
}

/** What changed from one picture to the next. */
export interface Change {
  /** When the new picture is seen, in milliseconds of its recording. */
  readonly ms: number;
  readonly boxes: readonly ChangedBox[];
  /** The same without what changes all the time, as a film does. */
  readonly calm: readonly ChangedBox[];
  /** The share of all tiles that changed, 0 to 1. */
  readonly share: number;
  /** How far everything in the boxes went down, in whole pixels; 0 if it did not. */
  readonly scrolled: number;
}

/** More parts than this are told as one. */
const MOST_BOXES = 24;
/** What changes so near to the pointer is its own doing: tiles reach beyond it. */
const OWN = 20;

/** Parts of a picture in which tiles changed: tiles that touch, at corners too, are one part. */
export function boxesOf(tiles: readonly number[], across: number): ChangedBox[] {
  const open = new Set(tiles);
  const boxes: ChangedBox[] = [];
  for (const seed of tiles) {
    if (!open.delete(seed)) continue;
    const members = [seed];
    let [left, right, top, bottom] = [across, 0, Infinity, 0];
    for (let next = 0; next < members.length; next++) {
      const column = members[next]! % across;
      const row = (members[next]! - column) / across;
      left = Math.min(left, column);
      right = Math.max(right, column);
      top = Math.min(top, row);
      bottom = Math.max(bottom, row);
      for (let y = row - 1; y <= row + 1; y++)
        for (let x = Math.max(0, column - 1); x <= Math.min(across - 1, column + 1); x++)
          if (open.delete(y * across + x)) members.push(y * across + x);
    }
    boxes.push({
      ...{ x: left * TILE, y: top * TILE, tiles: members.length },
      ...{ width: (right - left + 1) * TILE, height: (bottom - top + 1) * TILE },
    });
  }
  if (boxes.length <= MOST_BOXES) return boxes;
  const right = Math.max(...boxes.map((box) => box.x + box.width));
  const bottom = Math.max(...boxes.map((box) => box.y + box.height));
  const x = Math.min(...boxes.map((box) => box.x));
  const y = Math.min(...boxes.map((box) => box.y));
  return [{ x, y, width: right - x, height: bottom - y, tiles: tiles.length }];
}

/**
 * What may have been scrolled: the part that changed most, and what changed above and below it,
 * since between the lines of a page nothing does. In pixels; empty where nothing changed.
 */
export function movedPart(boxes: readonly ChangedBox[]): Rect {
  const [first, ...others] = [...boxes].sort((a, b) => b.tiles - a.tiles);
  if (!first) return { x: 0, y: 0, width: 0, height: 0 };
  const { x, y, width, height } = first;
  const isAlong = (box: Rect) =>
    Math.min(box.x + box.width, x + width) - Math.max(box.x, x) > box.width / 2;
  return others.filter(isAlong).reduce<Rect>(unite, { x, y, width, height });
}

/** What changed beside the pointer, which went from one rectangle to another. */
export function withoutPointer(
  boxes: readonly ChangedBox[],
  before: Rect | null,
  now: Rect | null,
): readonly ChangedBox[] {
  const either = before ?? now;
  if (!either) return boxes;
  // Where it went is changed as one with where it came from.
  const rects = [either, now ?? either, unite(either, now ?? either)];
  return boxes.filter((box) => !rects.some((rect) => isWithin(box, padded(rect, OWN))));
}
