import type { WallMap } from '../project/model';
import type { Rect, Size } from '../scale/rect';

/**
 * One plane of a wall's light for a part of the recording, brought up linearly between the middles
 * of the map's cells.
 *
 * @param footage size of the recording, which the map covers
 * @param part footage pixels
 * @returns `width * height` samples, row by row
 */
export function sampleWall(
  map: WallMap,
  plane: 'y' | 'u' | 'v',
  footage: Size,
  part: Rect,
  width: number,
  height: number,
): Uint8Array {
  const cells = map[plane];
  const out = new Uint8Array(width * height);
  const columns = Array.from({ length: width }, (_, x) =>
    between(
      ((part.x + ((x + 0.5) * part.width) / width) / footage.width) * map.columns,
      map.columns,
    ),
  );
  for (let y = 0; y < height; y++) {
    const row = between(
      ((part.y + ((y + 0.5) * part.height) / height) / footage.height) * map.rows,
      map.rows,
    );
    const [above, below] = [row.from * map.columns, row.to * map.columns];
    for (let x = 0; x < width; x++) {
      const { from, to, share } = columns[x]!;
      const upper = cells[above + from]! * (1 - share) + cells[above + to]! * share;
      const lower = cells[below + from]! * (1 - share) + cells[below + to]! * share;
      out[y * width + x] = upper * (1 - row.share) + lower * row.share + 0.5;
    }
  }
  return out;
}

/** The two cells that a place lies between, and how far it is from the first to the second. */
function between(place: number, count: number): { from: number; to: number; share: number } {
  const at = Math.min(count - 1, Math.max(0, place - 0.5));
  const from = Math.floor(at);
  return { from, to: Math.min(count - 1, from + 1), share: at - from };
}
