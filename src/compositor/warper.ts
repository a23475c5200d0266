import { phaseTable } from '@/core/scale/filter';
import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';
import type { Inset } from './inset';
import { LruMap } from './lru';
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

const PHASES = 64;
/** Steps of a sample's width by which tables differ. */
const STRETCH_STEP = 1 / 16;

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

/** Resamples insets along any straight axes. */
export class Warper {
  private readonly tables: LruMap<{ at: number; taps: number; reach: number }>;

  constructor(private readonly heap: KernelHeap) {
    this.tables = new LruMap(8, ({ at }) => heap.release(at));
  }

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
    const stretch = Math.max(1, Math.hypot(ax, ay), Math.hypot(bx, by));
    const step = Math.ceil(stretch / STRETCH_STEP - 1e-9) * STRETCH_STEP;
    const { at, taps, reach } = this.tables.get(String(step), () => {
      const table = phaseTable(step, PHASES);
      return { at: this.heap.put(table.weights), taps: table.taps, reach: table.reach };
    });
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
      at,
      taps,
      PHASES,
      reach,
    );
  }
}
