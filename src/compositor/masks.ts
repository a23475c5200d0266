import type { Mask } from '@/core/layout/mask';
import type { Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { blurRoom } from '@/kernels/planar';
import type { MaskPlanes } from './inset';
import { LruMap } from './lru';
import type { Rasterizer } from './rasterizer';
import { coverPlane, FILLED, insideOf, type Profile } from './shapes';

/** Makes masks and keeps those used of late. */
export class MaskShop {
  private readonly masks: LruMap<MaskPlanes>;

  constructor(
    private readonly heap: KernelHeap,
    private readonly rasterizer: Rasterizer,
  ) {
    this.masks = new LruMap(12, ({ alpha, chromaAlpha }) => {
      heap.release(alpha);
      heap.release(chromaAlpha);
    });
  }

  /** The mask for an inset of a size. */
  of(mask: Mask, width: number, height: number): MaskPlanes {
    return this.kept([mask, width, height], width, height, (alpha) =>
      this.cover(mask, { width, height }, alpha),
    );
  }

  /** A mask that fades by the row, from how clear it is above to how clear it is below, 0 to 1. */
  fading(above: number, below: number, width: number, height: number): MaskPlanes {
    return this.kept([above, below, width, height], width, height, (alpha) => {
      const rows = this.heap.bytes(alpha, width * height);
      for (let row = 0; row < height; row++) {
        const clear = above + ((below - above) * (row + 0.5)) / height;
        rows.fill(Math.round(255 * clear), row * width, (row + 1) * width);
      }
    });
  }

  private kept(
    key: unknown,
    width: number,
    height: number,
    cover: (alpha: number) => void,
  ): MaskPlanes {
    return this.masks.get(JSON.stringify(key), () => {
      const { heap } = this;
      const alpha = heap.allocate(width * height + 16);
      const chromaAlpha = heap.allocate(((width + 1) >> 1) * ((height + 1) >> 1) + 16);
      cover(alpha);
      heap.exports.halvePlane(alpha, width, width, height, chromaAlpha);
      return { alpha, chromaAlpha };
    });
  }

  /**
   * Coverage of each pixel, 0 to 255, put into memory; edges are one pixel wide, or as wide as the
   * feather.
   */
  private cover(mask: Mask, size: Size, at: number): void {
    if (mask.shape === 'path') return this.path(mask.points, mask.feather, size, at);
    const { feather } = mask;
    const out = this.heap.bytes(at, size.width * size.height);
    if (feather > 1) coverPlane(out, size, insideOf(mask, size), feathered(feather), false);
    // At the very border of the inset a rectangle has no edge.
    else if (mask.shape === 'rectangle') out.fill(255);
    else coverPlane(out, size, insideOf(mask, size), FILLED);
  }

  private path(
    points: readonly { x: number; y: number }[],
    feather: number,
    { width, height }: Size,
    at: number,
  ): void {
    const rgba = this.rasterizer.draw(width, height, (pen) => {
      pen.beginPath();
      points.forEach(({ x, y }, i) => (i ? pen.lineTo(x, y) : pen.moveTo(x, y)));
      pen.closePath();
      pen.fillStyle = '#ffffff';
      pen.fill();
    });
    const { heap } = this;
    const out = heap.bytes(at, width * height);
    for (let i = 0; i < out.length; i++) out[i] = rgba[i * 4 + 3]!;
    const radius = Math.round(feather / 4);
    if (radius < 1) return;
    using scratch = heap.borrow(blurRoom(width, height));
    heap.exports.boxBlurPlane(at, width, width, height, radius, 3, scratch.at);
  }
}

/** An edge that lies within the outline, so many pixels wide. */
const feathered = (feather: number): Profile => ({
  from: 0,
  to: feather,
  of: (inside) => {
    const share = Math.min(1, Math.max(0, inside / feather));
    return Math.round(255 * share * share * (3 - 2 * share));
  },
});
