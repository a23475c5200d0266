import { intersect } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { subPlane, type Plane, type PlanarFrame } from '@/kernels/planar';
import type { MaskPlanes } from './inset';

/** A small planar picture with opacity at both resolutions; even sides. */
export interface Sprite {
  readonly width: number;
  readonly height: number;
  readonly y: Plane;
  readonly u: Plane;
  readonly v: Plane;
  readonly alpha: Plane;
  readonly chromaAlpha: Plane;
}

/** Memory for a sprite, from its luma on; both sides even. */
export function allocateSprite(heap: KernelHeap, width: number, height: number): Sprite {
  const full = width * height;
  const cw = width / 2;
  const ch = height / 2;
  // Kernels that take eight samples at a time may touch some bytes behind a plane.
  const at = heap.allocate(full * 2 + cw * ch * 3 + 16);
  const plane = (offset: number, w: number, h: number): Plane => ({
    at: at + offset,
    stride: w,
    width: w,
    height: h,
  });
  return {
    width,
    height,
    y: plane(0, width, height),
    alpha: plane(full, width, height),
    u: plane(full * 2, cw, ch),
    v: plane(full * 2 + cw * ch, cw, ch),
    chromaAlpha: plane(full * 2 + cw * ch * 2, cw, ch),
  };
}

/** A sprite and where its corner stands in the output; even pixels, may lie outside. */
export interface PlacedSprite {
  readonly sprite: Sprite;
  readonly x: number;
  readonly y: number;
}

/** Multiplies a sprite's opacity by a mask; its colours are not multiplied by it. */
export function fadeSprite(
  { exports }: KernelHeap,
  { alpha, chromaAlpha }: Sprite,
  fade: MaskPlanes,
): void {
  exports.multiplyPlane(alpha.at, fade.alpha, alpha.width * alpha.height, 0);
  const small = chromaAlpha.width * chromaAlpha.height;
  exports.multiplyPlane(chromaAlpha.at, fade.chromaAlpha, small, 0);
}

/** Blends a sprite, clipped to the target; `tint` leaves dark pixels dark. */
export function blendSprite(
  { exports }: KernelHeap,
  { sprite, x, y }: PlacedSprite,
  target: PlanarFrame,
  opacity: number,
  tint: boolean,
): void {
  const seen = intersect(
    { x, y, width: sprite.width, height: sprite.height },
    { x: 0, y: 0, width: target.width & ~1, height: target.height & ~1 },
  );
  if (seen.width < 2 || seen.height < 2) return;
  const strength = Math.round(opacity * 255);
  const light = subPlane(target.y, seen.x, seen.y, seen.width, seen.height);
  const blend = (to: Plane, from: Plane, alpha: Plane, by: number) => {
    const width = seen.width / by;
    const height = seen.height / by;
    const t = subPlane(to, seen.x / by, seen.y / by, width, height);
    const s = subPlane(from, (seen.x - x) / by, (seen.y - y) / by, width, height);
    const a = subPlane(alpha, (seen.x - x) / by, (seen.y - y) / by, width, height);
    exports.blendPlane(
      t.at,
      t.stride,
      s.at,
      s.stride,
      a.at,
      a.stride,
      width,
      height,
      strength,
      tint ? light.at : 0,
      light.stride,
      by,
    );
  };
  // Colour first: the tint reads the luma as it was.
  blend(target.u, sprite.u, sprite.chromaAlpha, 2);
  blend(target.v, sprite.v, sprite.chromaAlpha, 2);
  blend(target.y, sprite.y, sprite.alpha, 1);
}
