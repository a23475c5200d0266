import { assertNever } from '../assert-never';
import type { Rect } from '../scale/rect';

/** How things that are selected together are brought in line. */
export const ALIGNMENTS = ['left', 'middle', 'right', 'top', 'center', 'bottom'] as const;
/** In which direction they get the same room between them. */
export const SPREADS = ['across', 'down'] as const;
export type Arrangement = (typeof ALIGNMENTS)[number] | (typeof SPREADS)[number];

interface Way {
  readonly dx: number;
  readonly dy: number;
}

/** The place of a box that an alignment brings in line, on its axis. */
function placeOf({ x, y, width, height }: Rect, how: (typeof ALIGNMENTS)[number]): number {
  switch (how) {
    case 'left':
      return x;
    case 'middle':
      return x + width / 2;
    case 'right':
      return x + width;
    case 'top':
      return y;
    case 'center':
      return y + height / 2;
    case 'bottom':
      return y + height;
    default:
      return assertNever(how);
  }
}

const isAcross = (how: Arrangement): boolean =>
  how === 'left' || how === 'middle' || how === 'right' || how === 'across';

const onAxis = (how: Arrangement, by: number): Way =>
  isAcross(how) ? { dx: by, dy: 0 } : { dx: 0, dy: by };

/** The ways by which boxes get the same room between them; the first and the last stay. */
function spread(boxes: readonly Rect[], how: (typeof SPREADS)[number]): Way[] {
  const [start, side] = how === 'across' ? (['x', 'width'] as const) : (['y', 'height'] as const);
  const order = boxes
    .map((box, index) => ({ index, at: box[start], length: box[side] }))
    .sort((a, b) => a.at + a.length / 2 - b.at - b.length / 2);
  const [first, last] = [order[0]!, order.at(-1)!];
  const filled = order.reduce((sum, { length }) => sum + length, 0);
  const room = (last.at + last.length - first.at - filled) / (order.length - 1);
  const ways: Way[] = boxes.map(() => ({ dx: 0, dy: 0 }));
  let at = first.at;
  for (const { index, at: was, length } of order) {
    ways[index] = onAxis(how, at - was);
    at += length + room;
  }
  return ways;
}

/**
 * The ways by which boxes are brought in line or get the same room between them. An edge is the
 * outermost of theirs, a middle is the middle of the room that they take together.
 *
 * @returns one way for each box, in the boxes' unit; none for fewer boxes than it takes
 */
export function arrange(boxes: readonly Rect[], how: Arrangement): Way[] {
  if (how === 'across' || how === 'down') return boxes.length < 3 ? [] : spread(boxes, how);
  if (boxes.length < 2) return [];
  const places = (edge: (typeof ALIGNMENTS)[number]) => boxes.map((box) => placeOf(box, edge));
  const [low, high] = isAcross(how) ? (['left', 'right'] as const) : (['top', 'bottom'] as const);
  const [least, most] = [Math.min(...places(low)), Math.max(...places(high))];
  const target = how === low ? least : how === high ? most : (least + most) / 2;
  return boxes.map((box) => onAxis(how, target - placeOf(box, how)));
}
