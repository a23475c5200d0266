import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';

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
