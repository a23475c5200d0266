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
