import { parseColor, rgbToYuv } from '@/core/key/color';
import type { KernelHeap } from '@/kernels/heap';
import { blurRoom, type Plane } from '@/kernels/planar';
import type { ColorPlanes } from './scaled';

/** Kernels that take eight samples at a time may touch so many bytes behind a plane. */
const SLACK = 16;

/**
 * A picture with opacity at luma's and at chroma's resolution. Its colours are multiplied by the
 * opacity, so that it can be scaled and laid over another without a fringe; chroma is stored around
 * 128.
 */
export interface Inset extends ColorPlanes {
  readonly alpha: Plane;
  readonly chromaAlpha: Plane;
}

/** Memory for an inset; planes lie one after the other from `y` on, with some room behind each. */
export function allocateInset(heap: KernelHeap, width: number, height: number): Inset {
  const [cw, ch] = [(width + 1) >> 1, (height + 1) >> 1];
  const full = width * height + SLACK;
  const part = cw * ch + SLACK;
  const at = heap.allocate(full * 2 + part * 3);
  const chroma = (offset: number): Plane => ({
    at: at + offset,
    stride: cw,
    width: cw,
    height: ch,
  });
  return {
    y: { at, stride: width, width, height },
    alpha: { at: at + full, stride: width, width, height },
    u: chroma(full * 2),
    v: chroma(full * 2 + part),
    chromaAlpha: chroma(full * 2 + part * 2),
  };
}

export const releaseInset = (heap: KernelHeap, inset: Inset): void => heap.release(inset.y.at);

const samples = ({ width, height }: Plane) => width * height;

/** Makes an inset opaque. */
export function fillOpaque({ exports }: KernelHeap, { alpha, chromaAlpha }: Inset): void {
  for (const plane of [alpha, chromaAlpha])
    exports.fillPlane(plane.at, plane.stride, plane.width, plane.height, 255);
}

/** Lays an inset on a plain colour, after which its opacity counts no more. */
export function backInset(heap: KernelHeap, inset: Inset, color: string): void {
  const { y, u, v, alpha, chromaAlpha } = inset;
  const [luma, blue, red] = rgbToYuv(parseColor(color));
  heap.exports.backPlane(y.at, alpha.at, samples(y), luma, 0);
  heap.exports.backPlane(u.at, chromaAlpha.at, samples(u), blue, 128);
  heap.exports.backPlane(v.at, chromaAlpha.at, samples(v), red, 128);
}

/** Lays an inset on a picture of its size, after which its opacity counts no more. */
export function standOn(heap: KernelHeap, inset: Inset, ground: ColorPlanes): void {
  layInset(heap, inset, ground);
  for (const name of ['y', 'u', 'v'] as const)
    heap.exports.copyRows(ground[name].at, 0, inset[name].at, 0, samples(inset[name]), 1);
}

/** Opacity planes for the two resolutions of an inset of the same size. */
export interface MaskPlanes {
  readonly alpha: number;
  readonly chromaAlpha: number;
}

/** Multiplies an inset by a mask. */
export function maskInset(
  { exports }: KernelHeap,
  { y, u, v, alpha, chromaAlpha }: Inset,
  mask: MaskPlanes,
): void {
  exports.multiplyPlane(y.at, mask.alpha, samples(y), 0);
  exports.multiplyPlane(alpha.at, mask.alpha, samples(alpha), 0);
  exports.multiplyPlane(u.at, mask.chromaAlpha, samples(u), 128);
  exports.multiplyPlane(v.at, mask.chromaAlpha, samples(v), 128);
  exports.multiplyPlane(chromaAlpha.at, mask.chromaAlpha, samples(chromaAlpha), 0);
}

/** Makes an inset as see-through as `opacity`, 0 to 1, says. */
export function fadeInset(
  { exports }: KernelHeap,
  { y, u, v, alpha, chromaAlpha }: Inset,
  opacity: number,
): void {
  const fade = (plane: Plane, pivot: number) =>
    exports.adjustPlane(plane.at, plane.stride, 0, 0, plane.width, plane.height, opacity, 0, pivot);
  for (const plane of [y, alpha, chromaAlpha]) fade(plane, 0);
  for (const plane of [u, v]) fade(plane, 128);
}

/** Lays an inset over an area of its size. */
export function layInset(
  { exports }: KernelHeap,
  { y, u, v, alpha, chromaAlpha }: Inset,
  area: ColorPlanes,
): void {
  const lay = (to: Plane, from: Plane, by: Plane, pivot: number) =>
    exports.layPlane(
      to.at,
      to.stride,
      from.at,
      from.stride,
      by.at,
      by.stride,
      to.width,
      to.height,
      pivot,
    );
  lay(area.y, y, alpha, 0);
  lay(area.u, u, chromaAlpha, 128);
  lay(area.v, v, chromaAlpha, 128);
}

/** Multiplies an area by an inset, or with `screen` their complements. */
export function multiplyInset(
  { exports }: KernelHeap,
  { y, u, v, alpha, chromaAlpha }: Inset,
  area: ColorPlanes,
  screen: boolean,
): void {
  const mode = screen ? 1 : 0;
  // Chroma first: it reads the luma as it was.
  for (const [to, from] of [
    [area.u, u],
    [area.v, v],
  ] as const)
    exports.multiplyChroma(
      to.at,
      to.stride,
      from.at,
      from.stride,
      chromaAlpha.at,
      chromaAlpha.stride,
      to.width,
      to.height,
      mode,
      area.y.at,
      area.y.stride,
      y.at,
      y.stride,
    );
  exports.multiplyLuma(
    area.y.at,
    area.y.stride,
    y.at,
    y.stride,
    alpha.at,
    alpha.stride,
    area.y.width,
    area.y.height,
    mode,
  );
}

/** Puts an inset's opacity in the place of its colours, as grey. */
export function showMatte({ exports }: KernelHeap, { y, u, v, alpha }: Inset): void {
  exports.copyRows(alpha.at, 0, y.at, 0, samples(y), 1);
  exports.adjustPlane(y.at, y.stride, 0, 0, y.width, y.height, 219 / 255, 16, 0);
  for (const plane of [u, v])
    exports.fillPlane(plane.at, plane.stride, plane.width, plane.height, 128);
}

/**
 * Lets what will be behind an inset shine through along its outline, as light does that falls
 * around it: the more, the more of its surroundings is clear.
 *
 * @param amount 0 to 1
 * @param reach how far it falls, in samples of luma
 */
export function wrapLight(heap: KernelHeap, inset: Inset, amount: number, reach: number): void {
  const { alpha, chromaAlpha } = inset;
  const { width, height } = alpha;
  const radius = Math.max(1, Math.round(reach));
  using mask = heap.borrow(width * height + SLACK);
  using small = heap.borrow(chromaAlpha.width * chromaAlpha.height + SLACK);
  using scratch = heap.borrow(blurRoom(width, height));
  const { exports } = heap;
  exports.copyRows(alpha.at, 0, mask.at, 0, width * height, 1);
  exports.boxBlurPlane(mask.at, width, width, height, radius, 2, scratch.at);
  // Half of its surroundings are clear along a straight outline.
  exports.adjustPlane(mask.at, width, 0, 0, width, height, amount, 255 * (1 - amount), 0);
  exports.halvePlane(mask.at, width, width, height, small.at);
  maskInset(heap, inset, { alpha: mask.at, chromaAlpha: small.at });
}
