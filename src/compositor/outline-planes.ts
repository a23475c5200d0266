import type { OutlineMark } from '@/core/frame/mark';
import { parseColor, rgbToYuv } from '@/core/key/color';
import type { Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { traceOutline } from './outline-path';
import type { Rasterizer } from './rasterizer';
import { coverPlane, FILLED, insideOf, lined } from './shapes';
import type { Sprite } from './sprite';

/** How far flat outlines are from a line along them is not told well enough for a line's width. */
const FLAT = 2;

/**
 * Whether an outline is drawn without a canvas: all of layouts are, of which each picture of a
 * glide has others. Those that are filled and stroked, that do not stand in the middle of a sprite
 * of even sides, and flat round ones are not.
 */
export function isPlain({ shape, box, fill, fillTo, stroke }: OutlineMark): boolean {
  if (fillTo || stroke?.second) return true;
  const { width, height } = box;
  if (width % 2 || height % 2 || (fill && stroke)) return false;
  const isRound = shape === 'ellipse' || shape === 'squircle';
  return !isRound || (width <= FLAT * height && height <= FLAT * width);
}

/**
 * Draws an outline, which `isPlain`, into a sprite that has so many pixels of room around it on
 * each side.
 */
export function drawOutline(
  heap: KernelHeap,
  rasterizer: Rasterizer,
  mark: OutlineMark,
  sprite: Sprite,
): void {
  const { box, fill, fillTo = null, stroke } = mark;
  const [color, second] = stroke ? [stroke.color, stroke.second ?? null] : [fill!, fillTo];
  if (second === null) fillColor(heap, sprite, color);
  else fillColors(heap, sprite, box, color, second);
  const { alpha, chromaAlpha, width, height } = sprite;
  coverOutline(heap, rasterizer, mark, alpha.at, sprite, 1);
  heap.exports.halvePlane(alpha.at, width, width, height, chromaAlpha.at);
}

/**
 * Covers a plane with an outline in its middle, so many times smaller; a path by the host's canvas,
 * since it is told by nothing but its corners.
 */
export function coverOutline(
  heap: KernelHeap,
  rasterizer: Rasterizer,
  mark: OutlineMark,
  at: number,
  { width, height }: Size,
  by: number,
): void {
  const { box, stroke, shape } = mark;
  if (shape !== 'path') {
    const inside = insideOf(
      { shape, radius: mark.radius / by },
      { width: box.width / by, height: box.height / by },
    );
    const out = heap.bytes(at, width * height);
    return coverPlane(out, { width, height }, inside, stroke ? lined(stroke.width) : FILLED);
  }
  const points = mark.points?.map(({ x, y }) => ({ x: x / by, y: y / by }));
  const small = { ...mark, points: points as OutlineMark['points'] };
  const rgba = rasterizer.draw(width, height, (pen) => {
    traceOutline(pen, small, (width - box.width / by) / 2, (height - box.height / by) / 2);
    pen.fillStyle = pen.strokeStyle = '#ffffff';
    if (!stroke) return pen.fill();
    pen.lineWidth = stroke.width;
    pen.stroke();
  });
  const out = heap.bytes(at, width * height);
  for (let i = 0; i < out.length; i++) out[i] = rgba[i * 4 + 3]!;
}

/** Fills a sprite with one colour. */
export function fillColor({ exports }: KernelHeap, { y, u, v }: Sprite, color: string): void {
  const yuv = rgbToYuv(parseColor(color));
  for (const [i, plane] of [y, u, v].entries())
    exports.fillPlane(plane.at, plane.stride, plane.width, plane.height, yuv[i]!);
}

/**
 * A colour that goes over to another from the upper left of a box in the middle to its lower right.
 * Each row is what the one above it is, moved by a little: one long row has all of them, to within
 * half a pixel.
 */
function fillColors(
  heap: KernelHeap,
  sprite: Sprite,
  { width, height }: Size,
  from: string,
  to: string,
): void {
  const [a, b] = [rgbToYuv(parseColor(from)), rgbToYuv(parseColor(to))];
  const moved = height / Math.max(1, width);
  const length = width + height * moved;
  for (const [i, plane] of [sprite.y, sprite.u, sprite.v].entries()) {
    const by = sprite.width / plane.width;
    // Luma stands in the middle of its pixel, chroma on the left one of two, between two rows.
    const begins =
      0.5 - (sprite.width - width) / 2 + moved * (by / 2 - (sprite.height - height) / 2);
    const count = plane.width + Math.ceil(plane.height * moved);
    const long = Uint8Array.from({ length: count }, (_, at) => {
      const u = Math.min(1, Math.max(0, (begins + at * by) / length));
      return Math.round(a[i]! + (b[i]! - a[i]!) * u);
    });
    using lent = heap.lend(long);
    for (let row = 0; row < plane.height; row++)
      heap.exports.copyRows(
        ...([lent.at + Math.round(row * moved), 0, plane.at + row * plane.stride, 0] as const),
        ...([plane.width, 1] as const),
      );
  }
}
