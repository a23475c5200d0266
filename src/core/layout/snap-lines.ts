import type { Size } from '../scale/rect';
import type { Box } from './model';

/** The lines within which titles are safe on any screen, by EBU R 95 for pictures of 16:9. */
const TITLE_SAFE = 0.05;
const USUAL = [0, TITLE_SAFE, 1 / 3, 1 / 2, 2 / 3, 1 - TITLE_SAFE, 1];

export type Axis = 'x' | 'y';
/** The side of a box that lies along an axis. */
export const SIDE = { x: 'width', y: 'height' } as const;

/**
 * The lines of a picture on which edges and middles come to rest, in shares of it: its edges, thirds
 * and middle, those within which titles are safe, and the edges and middles of other boxes.
 */
export const linesOf = (axis: Axis, others: readonly Box[]): number[] => [
  ...USUAL,
  ...others.flatMap((box) => {
    const [start, length] = [box[axis], box[SIDE[axis]]];
    return [start, start + length / 2, start + length];
  }),
];

/** The shortest way from one of some places to a line within reach; null where none is. */
export function nearest(places: readonly number[], lines: readonly number[], reach: number) {
  let best: { by: number; line: number } | null = null;
  for (const place of places)
    for (const line of lines) {
      const by = line - place;
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, line };
    }
  return best;
}

/** How far a box is from rest, and the lines on which it would rest, in shares of the picture. */
export interface Rest {
  readonly dx: number;
  readonly dy: number;
  readonly lines: { readonly x: readonly number[]; readonly y: readonly number[] };
}

/**
 * The way by which a box comes to rest on lines of the picture: with its edges or its middle, in
 * each direction on its own. One without size rests with its spot.
 *
 * @param frame size of the picture in any unit: tells what is as far across as down
 * @param reach how near a line has to be, in shares of the width
 */
export function restOf(box: Box, frame: Size, reach: number, others: readonly Box[]): Rest {
  const along = (axis: Axis, near: number) => {
    const [start, length] = [box[axis], box[SIDE[axis]]];
    const places = length ? [start, start + length / 2, start + length] : [start];
    return nearest(places, linesOf(axis, others), near);
  };
  const across = along('x', reach);
  const down = along('y', (reach * frame.width) / frame.height);
  return {
    ...{ dx: across?.by ?? 0, dy: down?.by ?? 0 },
    lines: { x: across ? [across.line] : [], y: down ? [down.line] : [] },
  };
}
