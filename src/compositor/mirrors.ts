import type { Reflection } from '@/core/frame/plan';
import type { Rect } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { allocateInset, type Inset, type MaskPlanes } from './inset';
import { LruMap } from './lru';

/** What lies below the ground of something, upside down. */
interface Below {
  /** Not faded yet; to be released by the caller. */
  readonly inset: Inset;
  readonly box: Rect;
  /** What it is to be multiplied by. */
  readonly fade: MaskPlanes;
}

/** Turns pictures upside down about the ground that they stand on. */
export class Mirrors {
  private readonly fades: LruMap<MaskPlanes>;

  constructor(private readonly heap: KernelHeap) {
    this.fades = new LruMap(4, ({ alpha, chromaAlpha }) => {
      heap.release(alpha);
      heap.release(chromaAlpha);
    });
  }

  /**
   * What is seen below the ground of a picture with opacity; null where that is nothing.
   *
   * @param box where the picture is in the output, on even pixels
   */
  below(of: Inset, box: Rect, { ground, end, strength, reach }: Reflection): Below | null {
    const { heap } = this;
    // The row that lies as far above the ground as the output's row lies below.
    const rowFor = (row: number) => 2 * ground - 1 - row - box.y;
    const top = Math.max(ground, 2 * ground - box.y - box.height);
    const bottom = Math.min(end, 2 * ground - box.y);
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
    const fade = this.fade(box.width, height, (row) => {
      const left = 1 - (top + row + 0.5 - ground) / reach;
      return strength * Math.max(0, left);
    });
    return { inset, box: { x: box.x, y: top, width: box.width, height }, fade };
  }

  private fade(width: number, height: number, strengthAt: (row: number) => number): MaskPlanes {
    const key = `${width} ${height} ${strengthAt(0)} ${strengthAt(height - 1)}`;
    return this.fades.get(key, () => {
      const { heap } = this;
      const [cw, ch] = [(width + 1) >> 1, (height + 1) >> 1];
      const alpha = heap.allocate(width * height + 16);
      const chromaAlpha = heap.allocate(cw * ch + 16);
      const rows = heap.bytes(alpha, width * height);
      for (let row = 0; row < height; row++)
        rows.fill(Math.round(255 * strengthAt(row)), row * width, (row + 1) * width);
      heap.exports.halvePlane(alpha, width, width, height, chromaAlpha);
      return { alpha, chromaAlpha };
    });
  }
}

/** Multiplies a sprite's opacity by a mask; its colours are not multiplied by it. */
export function fadeSprite(
  { exports }: KernelHeap,
  { alpha, chromaAlpha }: Inset,
  fade: MaskPlanes,
): void {
  exports.multiplyPlane(alpha.at, fade.alpha, alpha.width * alpha.height, 0);
  const small = chromaAlpha.width * chromaAlpha.height;
  exports.multiplyPlane(chromaAlpha.at, fade.chromaAlpha, small, 0);
}
