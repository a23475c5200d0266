import { readFileSync } from 'node:fs';
import { KernelHeap } from './heap';

/** The kernels as built, with a memory of their own. */
export const testHeap = (): Promise<KernelHeap> =>
  KernelHeap.load(readFileSync('public/kernels.wasm'));

/** Samples that look random and are the same for a seed. */
export const noisyPlane = (width: number, height: number, seed: number): Uint8Array =>
  Uint8Array.from(
    { length: width * height },
    (_, i) => Math.imul(i + seed * 7919 + 1, 2654435761) >>> 24,
  );

/** Opacity as mattes have it: clear and opaque stretches, and a few samples between. */
export const patchyPlane = (width: number, height: number, seed: number): Uint8Array => {
  const noise = noisyPlane(width, height, seed);
  return noise.map((value, i) => {
    const wave = Math.sin((i % width) / 11 + seed) + Math.sin(Math.floor(i / width) / 9 + seed * 2);
    return wave < -0.2 ? 0 : wave > 0.2 ? 255 : value;
  });
};

/**
 * Runs something with planes in the kernels' memory, and answers copies of them as they are
 * afterwards.
 */
export function withPlanes(
  heap: KernelHeap,
  planes: readonly Uint8Array[],
  work: (...at: number[]) => void,
): Uint8Array[] {
  // Room behind, since kernels may touch a few bytes beyond.
  const at = planes.map((plane) => {
    const address = heap.allocate(plane.length + 64);
    heap.bytes(address, plane.length).set(plane);
    return address;
  });
  work(...at);
  const after = at.map((address, i) => heap.bytes(address, planes[i]!.length).slice());
  at.forEach((address) => heap.release(address));
  return after;
}

/** The largest difference of two planes, in code values. */
export const apart = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i]! - b[i]!));
  return most;
};
