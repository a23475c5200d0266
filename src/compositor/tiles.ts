import type { Rect, Size } from '@/core/scale/rect';
import type { PlanarFrame, Plane } from '@/kernels/planar';

/**
 * Tiles of 4:2:0 pictures that are compared with those of the picture before, in luma samples; half
 * of it in chroma.
 */
export const TILE = { width: 64, height: 32 } as const;
/** Changed tiles of a row that lie further apart than this are taken each for itself. */
const GAP = 3;

/** Columns and rows of tiles of a picture. */
export const tilesOf = ({ width, height }: Size): { across: number; down: number } => ({
  across: Math.ceil(width / TILE.width),
  down: Math.ceil(height / TILE.height),
});

/** The planes of a picture, each with how many luma samples one of its own is wide and high. */
export const planesOf = ({ y, u, v }: PlanarFrame): readonly (readonly [Plane, number])[] => [
  [y, 1],
  [u, 2],
  [v, 2],
];

/** Runs of marked tiles, those of one width that lie below each other as one, in luma samples. */
export function markedRectangles(marks: Uint8Array, across: number, down: number): Rect[] {
  const done: Rect[] = [];
  let open: Rect[] = [];
  for (let row = 0; row < down; row++) {
    const runs: Rect[] = [];
    for (let column = 0; column < across; column++) {
      if (!marks[row * across + column]) continue;
      const last = runs[runs.length - 1];
      if (last && column - (last.x + last.width) < GAP)
        runs[runs.length - 1] = { ...last, width: column + 1 - last.x };
      else runs.push({ x: column, y: row, width: 1, height: 1 });
    }
    const grown = runs.map((run) => {
      const above = open.find((r) => r.x === run.x && r.width === run.width);
      return above ? { ...above, height: above.height + 1 } : run;
    });
    done.push(
      ...open.filter((r) => !grown.some((g) => g.x === r.x && g.y === r.y && g.width === r.width)),
    );
    open = grown;
  }
  return [...done, ...open].map(({ x, y, width, height }) => ({
    x: x * TILE.width,
    y: y * TILE.height,
    width: width * TILE.width,
    height: height * TILE.height,
  }));
}
