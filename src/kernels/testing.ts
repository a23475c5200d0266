import { readFileSync } from 'node:fs';
import { readModel } from '@/core/crisp/model';
import { CRISP_WEIGHTS } from '@/core/crisp/weights';
import { crispRoom, packModel } from './crisp';
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

/**
 * A plane at twice the size, rectangle after rectangle, its text rebuilt or as Catmull-Rom has it.
 */
export function doubledPlane(
  heap: KernelHeap,
  plane: Uint8Array,
  width: number,
  rebuilt: boolean,
  tile: number,
): Uint8Array {
  const height = plane.length / width;
  const { model, shifts } = packModel(readModel(CRISP_WEIGHTS));
  using weights = heap.lend(model);
  using by = heap.lend(shifts);
  using source = heap.lend(plane);
  using target = heap.borrow(plane.length * 4);
  using room = heap.borrow(crispRoom(tile, tile));
  for (let y = 0; y < height; y += tile)
    for (let x = 0; x < width; x += tile)
      heap.exports.crispPlane(
        ...([source.at, width, width, height, x, y] as const),
        Math.min(tile, width - x),
        Math.min(tile, height - y),
        target.at + 4 * y * width + 2 * x,
        2 * width,
        rebuilt ? weights.at : 0,
        by.at,
        room.at,
      );
  return heap.bytes(target.at, plane.length * 4).slice();
}
