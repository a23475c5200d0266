import type { Reflection } from '@/core/frame/plan';
import type { Rect } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { allocateInset, type Inset, type MaskPlanes } from './inset';
import type { MaskShop } from './masks';

/** What lies below the ground of something, upside down. */
interface Mirrored {
  /** Not faded yet; to be released by the caller. */
  readonly inset: Inset;
  readonly box: Rect;
  /** What it is to be multiplied by. */
  readonly fade: MaskPlanes;
}

/**
 * What is seen below the ground of a picture with opacity, upside down; null where that is nothing.
 *
 * @param box where the picture is in the output, on even pixels
 */
export function mirrored(
  heap: KernelHeap,
  masks: MaskShop,
  of: Inset,
  box: Rect,
  { ground, end, strength, reach }: Reflection,
): Mirrored | null {
  // The row that lies as far above the ground as the output's row lies below.
  const rowFor = (row: number) => 2 * ground - 1 - row - box.y;
  const top = Math.max(ground, 2 * ground - box.y - box.height);
  const bottom = Math.min(end, ground + 2 * Math.floor(reach / 2), 2 * ground - box.y);
  const height = bottom - top;
  if (height < 2) return null;
  const inset = allocateInset(heap, box.width, height);
  for (const name of ['y', 'alpha', 'u', 'v', 'chromaAlpha'] as const) {
    const [from, to] = [of[name], inset[name]];
    const last = name === 'y' || name === 'alpha' ? rowFor(top) : (rowFor(top) - 1) / 2;
    heap.exports.copyRows(
      ...([from.at + last * from.stride, -from.stride] as const),
      ...([to.at, to.stride, to.width, to.height] as const),
    );
  }
  const clearAt = (row: number) => strength * (1 - (row - ground) / reach);
  const fade = masks.fading(clearAt(top), clearAt(bottom), box.width, height);
  return { inset, box: { x: box.x, y: top, width: box.width, height }, fade };
}
