import type { FootageKey } from '@/core/project/model';
import type { Rect, Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { blurRoom, type Plane } from '@/kernels/planar';
import type { Inset } from './inset';

/** Variance of luma, in code values squared, that counts as noise rather than as an edge. */
const LUMA_NOISE = 2;
/** Opacity within this share of clear or opaque becomes so. */
const EDGE = 0.04;

/** Opacity at luma's resolution from that at chroma's, with luma's edges. */
export function refineOpacity(
  heap: KernelHeap,
  y: Plane,
  { alpha, chromaAlpha }: Pick<Inset, 'alpha' | 'chromaAlpha'>,
): void {
  const { width, height } = chromaAlpha;
  using guide = heap.borrow(width * height + 16);
  const floats = (width + 4) * height * 4;
  using slopes = heap.borrow(floats + 64);
  using offsets = heap.borrow(floats + 64);
  using scratch = heap.borrow((width + 16) * 17 + 64);
  using states = heap.borrow(((width + 7) >> 3) * height);
  heap.exports.halvePlane(y.at, y.stride, y.width, y.height, guide.at);
  heap.exports.guideAlpha(
    guide.at,
    chromaAlpha.at,
    width,
    height,
    LUMA_NOISE,
    slopes.at,
    offsets.at,
    states.at,
    scratch.at,
  );
  heap.exports.refineAlpha(
    y.at,
    y.stride,
    y.width,
    y.height,
    slopes.at,
    offsets.at,
    states.at,
    EDGE,
    alpha.at,
  );
}

/** Edge and garbage rectangle; lengths of the key are footage pixels. */
export function trimOpacity(
  heap: KernelHeap,
  { choke, feather, garbage }: Pick<FootageKey, 'choke' | 'feather' | 'garbage'>,
  alpha: Plane,
  shown: Rect,
  footage: Size,
): void {
  const { width, height } = alpha;
  const scale = width / shown.width;
  using scratch = heap.borrow(Math.max(width * height + 16, blurRoom(width, height)));
  const radius = Math.round(Math.abs(choke) * scale);
  if (radius)
    heap.exports.spreadPlane(alpha.at, width, height, radius, choke < 0 ? 1 : 0, scratch.at);
  const blur = Math.round((feather * scale) / 2);
  if (blur) heap.exports.boxBlurPlane(alpha.at, alpha.stride, width, height, blur, 2, scratch.at);
  if (!garbage) return;
  const clamp = (n: number, most: number) => Math.max(0, Math.min(most, Math.round(n)));
  // What reaches the recording's own border is not cut there.
  const left = garbage.x <= 0 ? 0 : clamp((garbage.x - shown.x) * scale, width);
  const top = garbage.y <= 0 ? 0 : clamp((garbage.y - shown.y) * scale, height);
  const right =
    garbage.x + garbage.width >= footage.width
      ? width
      : clamp((garbage.x + garbage.width - shown.x) * scale, width);
  const bottom =
    garbage.y + garbage.height >= footage.height
      ? height
      : clamp((garbage.y + garbage.height - shown.y) * scale, height);
  const clear = (x: number, y: number, w: number, h: number) => {
    if (w > 0 && h > 0)
      heap.exports.fillPlane(alpha.at + y * alpha.stride + x, alpha.stride, w, h, 0);
  };
  clear(0, 0, width, top);
  clear(0, bottom, width, height - bottom);
  clear(0, top, left, bottom - top);
  clear(right, top, width - right, bottom - top);
}
