import type { Rect, Size } from '@/core/scale/rect';
import { TILE } from './tiles';

/*
 * Ranges of tiles: rectangles whose unit is a tile, and what samples they hold.
 */

/** A rectangle that reaches so much further to each side. */
export const grown = ({ x, y, width, height }: Rect, by: number): Rect => ({
  x: x - by,
  y: y - by,
  width: width + 2 * by,
  height: height + 2 * by,
});

/** Whole samples of a rectangle that lie within a picture. */
export function within({ x, y, width, height }: Rect, size: Size): Rect {
  const left = Math.max(0, Math.floor(x));
  const top = Math.max(0, Math.floor(y));
  return {
    x: left,
    y: top,
    width: Math.max(0, Math.min(size.width, Math.ceil(x + width)) - left),
    height: Math.max(0, Math.min(size.height, Math.ceil(y + height)) - top),
  };
}

/** The tiles that a rectangle of samples touches: their columns and rows. */
export function tilesIn(rect: Rect, size: Size): Rect {
  const { x, y, width, height } = within(rect, size);
  const column = Math.floor(x / TILE.width);
  const row = Math.floor(y / TILE.height);
  return {
    x: column,
    y: row,
    width: Math.ceil((x + width) / TILE.width) - column,
    height: Math.ceil((y + height) / TILE.height) - row,
  };
}

/** The samples of tiles. */
export const samplesOf = ({ x, y, width, height }: Rect): Rect => ({
  x: x * TILE.width,
  y: y * TILE.height,
  width: width * TILE.width,
  height: height * TILE.height,
});

/** The tile of a number, counted row by row. */
export const tileAt = (i: number, across: number): Rect => ({
  x: i % across,
  y: Math.floor(i / across),
  width: 1,
  height: 1,
});

/** Whether the tile of a number is within a range. */
export const isIn = (tiles: Rect, i: number, across: number): boolean => {
  const { x, y } = tileAt(i, across);
  return x >= tiles.x && y >= tiles.y && x < tiles.x + tiles.width && y < tiles.y + tiles.height;
};

/** Visits the numbers of the tiles of a range. */
export function eachTile(
  { x, y, width, height }: Rect,
  across: number,
  visit: (i: number) => void,
): void {
  for (let row = y; row < y + height; row++)
    for (let column = x; column < x + width; column++) visit(row * across + column);
}

/** Some tiles, and a rectangle of samples in them. */
export interface Piece {
  readonly tiles: Rect;
  readonly rect: Rect;
}

/**
 * The marked tiles of a range in pieces of at most two by two, each with the smallest rectangle
 * that holds what is asked of its tiles.
 *
 * @param partOf what is asked of a tile, in samples
 */
export function piecesOf(
  marks: Uint8Array,
  range: Rect,
  across: number,
  partOf: (i: number) => Rect,
): Piece[] {
  const pieces: Piece[] = [];
  for (let y = range.y; y < range.y + range.height; y += 2)
    for (let x = range.x; x < range.x + range.width; x += 2) {
      const four = {
        ...{ x, y },
        width: Math.min(2, range.x + range.width - x),
        height: Math.min(2, range.y + range.height - y),
      };
      const found: Piece[] = [];
      eachTile(four, across, (i) => {
        if (marks[i]) found.push({ tiles: tileAt(i, across), rect: partOf(i) });
      });
      if (found.length)
        pieces.push(
          found.reduce((a, b) => ({
            tiles: around(a.tiles, b.tiles),
            rect: around(a.rect, b.rect),
          })),
        );
    }
  return pieces;
}

/** The smallest rectangle that holds two. */
function around(a: Rect, b: Rect): Rect {
  const x = Math.min(a.x, b.x);
  const y = Math.min(a.y, b.y);
  return {
    ...{ x, y },
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}
