import type { Size } from '../scale/rect';
import type { Box } from './model';
import { linesOf, nearest, SIDE, type Axis } from './snap-lines';

/** What of a box is taken hold of: all of it, or the corner that it is sized by. */
export type Grip = 'all' | 'top-left' | 'top-right' | 'bottom-left' | 'bottom-right';

/** No side of a box gets shorter, in shares of the picture. */
const LEAST = 0.05;
/** How a box is dragged. */
export interface BoxDrag {
  /** Size of the picture in any unit: tells what is square in it. */
  readonly frame: Size;
  /** Sizing keeps the shape that the box has. */
  readonly keepShape: boolean;
  /** Sizing keeps the middle where it is. */
  readonly aboutMiddle: boolean;
  /** Edges and middles come to rest on lines so near, in shares of the width; 0 nowhere. */
  readonly reach: number;
  /** Boxes whose edges and middles are lines as well. */
  readonly others: readonly Box[];
}

/** A box that was dragged, and the lines it came to rest on, in shares of the picture. */
export interface DraggedBox {
  readonly box: Box;
  readonly lines: { readonly x: readonly number[]; readonly y: readonly number[] };
}

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
/** Shares without the remains of binary fractions. */
const tidy = (value: number) => Number(value.toFixed(6));
const tidied = ({ x, y, width, height }: Box): Box => {
  const [left, top] = [tidy(clamp(x, 0, 1)), tidy(clamp(y, 0, 1))];
  return {
    ...{ x: left, y: top },
    width: tidy(Math.min(width, 1 - left)),
    height: tidy(Math.min(height, 1 - top)),
  };
};

/**
 * A box of a layout after it was dragged by a way; it stays within the picture.
 *
 * @param dx to the right, in shares of the picture's width
 * @param dy down, in shares of its height
 */
export function dragBox(box: Box, grip: Grip, dx: number, dy: number, how: BoxDrag): DraggedBox {
  return grip === 'all' ? moved(box, dx, dy, how) : sized(box, grip, dx, dy, how);
}

function moved(box: Box, dx: number, dy: number, { frame, reach, others }: BoxDrag): DraggedBox {
  const along = (axis: Axis, by: number, near: number) => {
    const length = box[SIDE[axis]];
    const start = box[axis] + by;
    const places = [start, start + length / 2, start + length];
    const snap = near > 0 ? nearest(places, linesOf(axis, others), near) : null;
    const at = clamp(start + (snap?.by ?? 0), 0, 1 - length);
    // One that the edge of the picture keeps away from its line does not rest on it.
    const rests = snap && Math.abs(at - start - snap.by) < 1e-9;
    return { at, lines: rests ? [snap.line] : [] };
  };
  const across = along('x', dx, reach);
  const down = along('y', dy, (reach * frame.width) / frame.height);
  return {
    box: tidied({ ...box, x: across.at, y: down.at }),
    lines: { x: across.lines, y: down.lines },
  };
}

function sized(
  box: Box,
  grip: Exclude<Grip, 'all'>,
  dx: number,
  dy: number,
  { frame, keepShape, aboutMiddle, reach, others }: BoxDrag,
): DraggedBox {
  const [vertical, horizontal] = grip.split('-') as ['top' | 'bottom', 'left' | 'right'];
  /** The edge that moves, the point that stays, and how long the side may get. */
  const along = (axis: Axis, low: boolean, by: number, near: number) => {
    const [start, length] = [box[axis], box[SIDE[axis]]];
    const edge = low ? start : start + length;
    const fixed = aboutMiddle ? start + length / 2 : low ? start + length : start;
    const snap = near > 0 ? nearest([edge + by], linesOf(axis, others), near) : null;
    const wanted = (edge + by + (snap?.by ?? 0) - fixed) * (low ? -1 : 1);
    const room = aboutMiddle ? Math.min(fixed, 1 - fixed) : low ? fixed : 1 - fixed;
    const part = aboutMiddle ? 2 : 1;
    const [least, most] = [Math.min(LEAST, length), room * part];
    return { low, fixed, least, most, wanted: clamp(wanted * part, least, most), snap };
  };
  const across = along('x', horizontal === 'left', dx, reach);
  const down = along('y', vertical === 'top', dy, (reach * frame.width) / frame.height);
  let [width, height] = [across.wanted, down.wanted];
  if (keepShape) {
    // Whichever side was pulled further leads; both stay within their room.
    const factors = [width / box.width, height / box.height];
    const lead = Math.abs(factors[0]! - 1) >= Math.abs(factors[1]! - 1) ? factors[0]! : factors[1]!;
    const factor = clamp(
      lead,
      Math.max(across.least / box.width, down.least / box.height),
      Math.min(across.most / box.width, down.most / box.height),
    );
    [width, height] = [box.width * factor, box.height * factor];
  }
  const start = ({ fixed, low }: typeof across, length: number) =>
    aboutMiddle ? fixed - length / 2 : low ? fixed - length : fixed;
  const rests = (side: typeof across, length: number) => {
    if (!side.snap) return [];
    const edge = side.low ? start(side, length) : start(side, length) + length;
    return Math.abs(edge - side.snap.line) < 1e-6 ? [side.snap.line] : [];
  };
  return {
    box: tidied({ x: start(across, width), y: start(down, height), width, height }),
    lines: { x: rests(across, width), y: rests(down, height) },
  };
}
