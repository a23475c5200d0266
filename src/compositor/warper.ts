import { squareTable } from '@/core/scale/filter';
import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';
import type { Inset } from './inset';
import type { ColorPlanes } from './scaled';

/**
 * Where target places come from: source x is `ax * x + bx * y + cx`, source y `ay * x + by * y +
 * cy`; pixels from the upper left corners.
 */
export interface Affine {
  readonly ax: number;
  readonly bx: number;
  readonly cx: number;
  readonly ay: number;
  readonly by: number;
  readonly cy: number;
}

/** As many fractions of a sample as the kernel tells apart. */
const PHASES = 64;

/**
 * The same mapping for chroma planes of 4:2:0, sited left: their sample (i, j) stands on luma's (2i
 * + 0.5, 2j + 1), so that a chroma place is half of a luma place that lies half a pixel to the
 * right.
 */
export const chromaAffine = ({ ax, bx, cx, ay, by, cy }: Affine): Affine => ({
  ax,
  bx,
  cx: (cx + 0.5 - ax / 2) / 2,
  ay,
  by,
  cy: (cy - ay / 2) / 2,
});

/** Resamples insets along any straight axes; none may be made smaller by it. */
export class Warper {
  private weights: number | null = null;

  constructor(private readonly heap: KernelHeap) {}

  /**
   * Fills an inset from another; what lies outside of it repeats its border, which should be clear.
   */
  warp(source: Inset, target: Inset, luma: Affine): void {
    this.colors(source, target, luma);
    this.plane(source.alpha, target.alpha, luma);
    this.plane(source.chromaAlpha, target.chromaAlpha, chromaAffine(luma));
  }

  /** The same for colours alone. */
  colors(source: ColorPlanes, target: ColorPlanes, luma: Affine): void {
    const chroma = chromaAffine(luma);
    this.plane(source.y, target.y, luma);
    this.plane(source.u, target.u, chroma);
    this.plane(source.v, target.v, chroma);
  }

  private plane(source: Plane, target: Plane, { ax, bx, cx, ay, by, cy }: Affine): void {
    this.weights ??= this.heap.put(squareTable(PHASES));
    this.heap.exports.warpPlane(
      source.at,
      source.stride,
      source.width,
      source.height,
      target.at,
      target.stride,
      target.width,
      target.height,
      ax,
      bx,
      cx,
      ay,
      by,
      cy,
      this.weights,
    );
  }
}
