import type { Rect, Size } from '../scale/rect';

/** What hangs together in a mask: its box, and of how many samples it is. */
export interface Connected extends Rect {
  readonly count: number;
}

/** How far samples that hang together may lie apart, across and down. */
export interface Reach {
  readonly x: number;
  readonly y: number;
}

/**
 * Takes all that hangs together with a sample out of a mask.
 *
 * @param open 1 where something is, row by row; what is taken becomes 0
 * @param seed the number of a sample that is there
 * @param members takes the numbers of the samples, and has room for all that may be
 */
export function takeConnected(
  open: Uint8Array,
  { width, height }: Size,
  seed: number,
  reach: Reach,
  members: Int32Array,
): Connected {
  open[seed] = 0;
  members[0] = seed;
  let count = 1;
  let [left, right, top, bottom] = [width, 0, height, 0];
  for (let next = 0; next < count; next++) {
    const at = members[next]!;
    const x = at % width;
    const y = (at - x) / width;
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < top) top = y;
    if (y > bottom) bottom = y;
    const first = Math.max(0, x - reach.x);
    const last = Math.min(width - 1, x + reach.x);
    const lowest = Math.min(height - 1, y + reach.y);
    for (let v = Math.max(0, y - reach.y); v <= lowest; v++)
      for (let near = v * width + first; near <= v * width + last; near++) {
        if (!open[near]) continue;
        open[near] = 0;
        members[count++] = near;
      }
  }
  return { x: left, y: top, width: right - left + 1, height: bottom - top + 1, count };
}
