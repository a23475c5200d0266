import { interpolateZoom } from 'd3-interpolate';
import type { InFootage, Rect } from '../scale/rect';

/** Starts and stops with no jerk at all (the sixth-order "smootherstep" polynomial). */
export const ease = (u: number): number => {
  const v = Math.min(1, Math.max(0, u));
  return v * v * v * (v * (v * 6 - 15) + 10);
};

/** Getting under way, and coming to rest, takes this share of a slow push. */
const START = 0.15;

/**
 * The share of the way at a share `u` (0 to 1) of the time of a slow push: it gathers speed, goes
 * evenly, and comes to rest, with no jump of speed.
 */
export function glide(u: number): number {
  const v = Math.min(1, Math.max(0, u));
  const speed = 1 / (1 - START);
  if (v < START) return (speed * v * v) / (2 * START);
  if (v > 1 - START) return 1 - (speed * (1 - v) ** 2) / (2 * START);
  return speed * (v - START / 2);
}

/**
 * The view a share `u` (0 to 1) of the way from one view to another, on the
 * smooth and efficient zoom-and-pan path of J. J. van Wijk and W. A. A. Nuij (2003).
 * Both views have the frame's shape. The path never shows more than `whole`.
 */
export function viewAlongPath(
  from: InFootage,
  to: InFootage,
  u: number,
  whole: InFootage,
): InFootage {
  if (u <= 0) return from;
  if (u >= 1) return to;
  const key = (v: InFootage): [number, number, number] => [
    v.x + v.width / 2,
    v.y + v.height / 2,
    v.width,
  ];
  const [cx, cy, pathWidth] = interpolateZoom(key(from), key(to))(u);
  const width = Math.min(pathWidth, whole.width);
  const height = (width * whole.height) / whole.width;
  return keepInside({ x: cx - width / 2, y: cy - height / 2, width, height }, whole);
}

/** A rectangle, such as a view, pushed back inside another in whose space it is. */
export function keepInside<R extends Rect>(view: R, whole: Rect): R {
  const clamp = (at: number, size: number, low: number, span: number) =>
    Math.min(Math.max(at, low), low + span - size);
  return {
    ...view,
    x: clamp(view.x, view.width, whole.x, whole.width),
    y: clamp(view.y, view.height, whole.y, whole.height),
  };
}
