import type { Rect } from '@/core/scale/rect';
import type { KernelHeap } from './heap';

/** One 8-bit plane in the kernels' memory. */
export interface Plane {
  readonly at: number;
  readonly stride: number;
  readonly width: number;
  readonly height: number;
}

/**
 * A YUV 4:2:0 picture in the kernels' memory, BT.709 limited range, chroma sited left; the three
 * planes lie one after the other.
 */
export interface PlanarFrame {
  readonly width: number;
  readonly height: number;
  readonly y: Plane;
  readonly u: Plane;
  readonly v: Plane;
  readonly size: number;
}

/** Bytes of a 4:2:0 picture; odd sides have a chroma sample for their last half pair. */
export const planarSize = (width: number, height: number): number =>
  width * height + 2 * ((width + 1) >> 1) * ((height + 1) >> 1);

/** Lays a picture out at an address, in the order that decoders write and encoders read. */
export function frameAtAddress(at: number, width: number, height: number): PlanarFrame {
  const cw = (width + 1) >> 1;
  const ch = (height + 1) >> 1;
  const chroma = (from: number): Plane => ({ at: from, stride: cw, width: cw, height: ch });
  return {
    width,
    height,
    size: planarSize(width, height),
    y: { at, stride: width, width, height },
    u: chroma(at + width * height),
    v: chroma(at + width * height + cw * ch),
  };
}

/** A new picture of undefined content. */
export const allocateFrame = (heap: KernelHeap, width: number, height: number): PlanarFrame =>
  frameAtAddress(heap.allocate(planarSize(width, height)), width, height);

/** Gives the memory of a picture back. */
export const releaseFrame = (heap: KernelHeap, frame: PlanarFrame): void =>
  heap.release(frame.y.at);

/** The picture's bytes, for reading into or writing out; valid until the next allocation. */
export const frameBytes = (heap: KernelHeap, frame: PlanarFrame): Uint8Array =>
  heap.bytes(frame.y.at, frame.size);

/** Bytes that blurring a rectangle needs beside it. */
export const blurRoom = (width: number, height: number): number =>
  48 * Math.max(width, height) + 400;

/** A rectangle of a plane; whole samples inside it. */
export const subPlane = (
  plane: Plane,
  x: number,
  y: number,
  width: number,
  height: number,
): Plane => ({
  at: plane.at + y * plane.stride + x,
  stride: plane.stride,
  width,
  height,
});

/**
 * A copy of a part of a picture, whose rectangle stands on even samples; rows follow each other
 * without a gap.
 */
export function cropFrame(
  heap: KernelHeap,
  frame: Pick<PlanarFrame, 'y' | 'u' | 'v'>,
  { x, y, width, height }: Rect,
): PlanarFrame {
  const cut = allocateFrame(heap, width, height);
  for (const [name, by] of [
    ['y', 1],
    ['u', 2],
    ['v', 2],
  ] as const) {
    const from = subPlane(frame[name], x / by, y / by, width / by, height / by);
    heap.exports.copyRows(
      from.at,
      from.stride,
      cut[name].at,
      cut[name].stride,
      from.width,
      from.height,
    );
  }
  return cut;
}
