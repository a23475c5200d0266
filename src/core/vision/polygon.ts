import type { MaskBox } from './mask';

/** Corners, `x, y` in turn. */
export type Polygon = readonly number[];

/** Whether a place is in any of some polygons (even-odd rule, each by itself). */
export const holds = (polygons: readonly Polygon[], x: number, y: number): boolean =>
  polygons.some((polygon) => {
    let inside = false;
    for (let i = 0, k = polygon.length - 2; i < polygon.length; k = i, i += 2) {
      const [ax, ay, bx, by] = [polygon[i]!, polygon[i + 1]!, polygon[k]!, polygon[k + 1]!];
      if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
    }
    return inside;
  });

/** The edges of the box around some polygons. */
export function edgesOf(polygons: readonly Polygon[]): MaskBox {
  const all = polygons.flat();
  const [xs, ys] = [all.filter((_, i) => i % 2 === 0), all.filter((_, i) => i % 2 === 1)];
  return {
    ...{ left: Math.min(...xs), right: Math.max(...xs) },
    ...{ top: Math.min(...ys), bottom: Math.max(...ys) },
  };
}
