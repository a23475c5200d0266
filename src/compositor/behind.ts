import type { KernelHeap } from '@/kernels/heap';
import { blurRoom, type PlanarFrame, type Plane } from '@/kernels/planar';
import { allocateInset, type Inset } from './inset';

/** Passes of a box whose result is close to a Gaussian. */
const PASSES = 2;

/**
 * What is behind an inset: the picture that it was taken from, blurred, without its own colours,
 * which are left out of the blur by their opacity. To be released by the caller.
 *
 * @param radius of the blur, in samples of luma
 */
export function blurBehind(
  heap: KernelHeap,
  picture: PlanarFrame,
  { alpha, chromaAlpha }: Inset,
  radius: number,
): Inset {
  const behind = allocateInset(heap, picture.width, picture.height);
  using scratch = heap.borrow(blurRoom(picture.width, picture.height));
  const blur = ({ at, stride, width, height }: Plane, by: number) =>
    heap.exports.boxBlurPlane(at, stride, width, height, by, PASSES, scratch.at);
  /** Weights, 255 where the inset is clear, and blurred ones. */
  const clear = (from: Plane, into: Plane) => {
    heap.exports.copyRows(from.at, 0, into.at, 0, from.width * from.height, 1);
    heap.exports.adjustPlane(into.at, into.stride, 0, 0, into.width, into.height, -1, 255, 0);
  };
  const fill = (from: Plane, into: Plane, weights: Plane, pivot: number) => {
    const count = from.width * from.height;
    heap.exports.copyRows(from.at, 0, into.at, 0, count, 1);
    heap.exports.multiplyPlane(into.at, weights.at, count, pivot);
  };
  const [half, full] = [Math.max(1, Math.round(radius / 2)), Math.max(1, Math.round(radius))];
  clear(alpha, behind.alpha);
  clear(chromaAlpha, behind.chromaAlpha);
  fill(picture.y, behind.y, behind.alpha, 0);
  fill(picture.u, behind.u, behind.chromaAlpha, 128);
  fill(picture.v, behind.v, behind.chromaAlpha, 128);
  for (const plane of [behind.y, behind.alpha]) blur(plane, full);
  for (const plane of [behind.u, behind.v, behind.chromaAlpha]) blur(plane, half);
  for (const [plane, weights, pivot] of [
    [behind.y, behind.alpha, 0],
    [behind.u, behind.chromaAlpha, 128],
    [behind.v, behind.chromaAlpha, 128],
  ] as const)
    heap.exports.dividePlane(plane.at, weights.at, plane.width * plane.height, pivot);
  return behind;
}
